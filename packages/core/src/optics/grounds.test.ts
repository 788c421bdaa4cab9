import { describe, expect, it } from '@jest/globals';
import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { flatSpectrum } from '../colour/spectrum';
import { factorsToLabs } from '../matching/ladder';
import { prepareCoat } from './coat';
import { existingFinish } from './existingFinish';
import { createFilm } from './film';
import { FIVE_ANGLES } from './geometry';
import {
  coatsOver,
  coatsToHide,
  contrastOfCoats,
  contrastRatio,
  HIDDEN_FROM,
  hidingCoat,
  showsThrough,
} from './hiding';
import { createOptics } from './optics';
import { sparkleIndex } from './sparkle';
import { createFastModel, evaluateReference } from './stack';

const film = createFilm(1.5);
const optics = createOptics(film, FIVE_ANGLES);
const model = createFastModel(optics);

describe('grounds', () => {
  it('hides more with every coat of pigment, from nothing to the usual criterion', () => {
    const coat = (factor: number) => prepareCoat(film, { pigment: { k: 0.02, s: 0.12, thickness: 10 }, factor });
    const ratios = [0, 1, 2, 4, 8, 20].map((n) => contrastRatio(model, n ? [coat(n)] : [])[2]!);
    expect(ratios[0]!).toBeLessThan(0.02);
    for (let i = 1; i < ratios.length; i++) expect(ratios[i]!).toBeGreaterThan(ratios[i - 1]!);
    expect(ratios.at(-1)!).toBeGreaterThan(0.98);
  });

  it('is Kubelka-Munk in the limit: a thick white coat returns more light the less it absorbs', () => {
    const thick = (k: number) =>
      evaluateReference(optics, { albedo: flatSpectrum(0) }, [
        prepareCoat(film, { pigment: { k, s: 1, thickness: 30 } }),
      ])[2 * 31]!;
    // Internal reflectance of an endless coat, closed at the surface as a Lambertian ground would be. Kubelka-Munk takes the
    // light as diffuse; the lamp enters nearer the normal and reaches deeper, hence 8 % and not 1 %.
    const expected = (k: number) => {
      const r = 1 + k - Math.sqrt(k * k + 2 * k);
      return (optics.geometries[2]!.surface * r) / (1 - film.internal * r);
    };
    for (const k of [0.002, 0.02, 0.1]) expect(Math.abs(thick(k) / expected(k) - 1)).toBeLessThan(0.08);
  });

  // Kubelka-Munk without absorption over black: R = S X / (1 + S X); over R0: 1 - (1 - R0) / (1 + S X (1 - R0)).
  it('hides by coats as the closed form says', () => {
    const clear = { k: flatSpectrum(0), s: flatSpectrum(0.8) };
    for (const n of [0.5, 1, 2, 5]) {
      const x = 0.8 * n;
      const over = (r0: number) => 1 - (1 - r0) / (1 + x * (1 - r0));
      for (const r0 of [0.02, 0.5, 0.9]) expect(coatsOver(clear, n, flatSpectrum(r0))[7]).toBeCloseTo(over(r0), 9);
      const seen = (r: number) => r / (1 - film.internal * r);
      expect(contrastOfCoats(film, clear, n)).toBeCloseTo(seen(over(0.02)) / seen(over(0.9)), 9);
      expect(showsThrough(film, clear, n)).toBeCloseTo(
        (seen(over(0.9)) - seen(over(0.02))) / (seen(0.9) - seen(0.02)),
        9,
      );
    }
  });

  it('finds the coat that hides in so many coats, whatever its colour', () => {
    for (const albedo of [0.004, 0.2, 0.6, 0.95])
      for (const hidesIn of [1, 2, 3.5]) {
        const coat = hidingCoat(film, flatSpectrum(albedo), hidesIn);
        expect(contrastOfCoats(film, coat, hidesIn)).toBeCloseTo(HIDDEN_FROM, 4);
        expect(coatsToHide(film, coat)).toBeCloseTo(hidesIn, 2);
        // Endless, it is the colour it was made for.
        expect(coatsOver(coat, 60, flatSpectrum(0.5))[9]).toBeCloseTo(albedo, 2);
      }
    expect(coatsToHide(film, { k: flatSpectrum(0.001), s: flatSpectrum(0.001) })).toBeNull();
  });

  it('takes an existing finish as a base: uncoated it is itself, and dye lowers it at every angle', () => {
    const read: Lab[] = [
      [118, -2, 5],
      [101, -1, 6],
      [60, 0, 7],
      [34, 1, 8],
      [29, 1, 8],
    ];
    const base = existingFinish(optics, read);
    const bare = factorsToLabs(model.evaluate(base, []));
    read.forEach((lab, g) => expect(de2000(lab, bare[g]!)).toBeLessThan(0.3));
    const dyed = factorsToLabs(model.evaluate(base, [prepareCoat(film, { dye: 0.3 })]));
    read.forEach((lab, g) => expect(dyed[g]![0]).toBeLessThan(lab[0] - 3));
  });

  it('orders sparkle by flake size, and calls a coat without flakes smooth', () => {
    expect(sparkleIndex(20, 0, 8)).toBe(0);
    expect(sparkleIndex(400, 0.4, 8)).toBeGreaterThan(sparkleIndex(60, 0.4, 8));
    expect(sparkleIndex(60, 0.4, 8)).toBeGreaterThan(sparkleIndex(12, 0.4, 8));
  });
});
