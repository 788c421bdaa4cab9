import { describe, expect, it } from '@jest/globals';
import { labToLch, type Lab } from '../colour/lab';
import { de2000 } from '../colour/difference';
import { flatSpectrum, type Spectrum } from '../colour/spectrum';
import { flopIndex } from '../colour/flopIndex';
import { DYES } from '../materials/dyes';
import { EFFECT_PIGMENTS } from '../materials/effectPigments';
import { findGround, GROUNDS } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { prepareCoat, type Coat } from '../optics/coat';
import { readFlake, tabulateFlake, type SpectralLayer } from '../optics/flakeOptics';
import { FIVE_ANGLES, type Geometry } from '../optics/geometry';
import { prepareLibrary } from '../materials/shop';
import { swatchFactors, type SwatchLayer } from '../looks/swatch';
import { factorsToLabs, ladderLabs } from './ladder';
import { describeDifference } from './words';

const shop = prepareLibrary();
const pigmentCoat = (id: string, cover: number): Coat => {
  const p = EFFECT_PIGMENTS.find((e) => e.id === id)!;
  return { flakes: { cover, tilt: p.tilt, edge: p.edge, optics: p.optics } };
};
const look = (coats: readonly Coat[], albedo: Spectrum, geometries: readonly Geometry[] = FIVE_ANGLES): Lab[] =>
  factorsToLabs(
    shop.model(geometries).evaluate(
      { albedo: Float64Array.from(albedo) },
      coats.map((c) => prepareCoat(shop.film, c)),
    ),
  );
const white = flatSpectrum(0.9);
const black = flatSpectrum(0.01);

// All of these are common practice (no source) unless a source is named.
describe('facts of the trade', () => {
  it('turns blue interference pigment over white yellowish in the flop, and keeps it blue over black', () => {
    const overWhite = look([pigmentCoat('blue-pearl-coarse', 0.6)], white);
    expect(overWhite[0]![2]).toBeLessThan(-5);
    expect(overWhite[4]![2]).toBeGreaterThan(3);
    const overBlack = look([pigmentCoat('blue-pearl-coarse', 0.6)], black);
    expect(overBlack[0]![2]).toBeLessThan(-15);
    expect(Math.max(...overBlack.map((lab) => lab[2]))).toBeLessThan(0);
    expect(overBlack[4]![0]).toBeLessThan(20);
  });

  it('deepens candy with every coat, while its chroma rises and then stalls', () => {
    const candy = shop.coat(findMix('cinder-candy'), 1.6);
    const face = ladderLabs(
      shop.model(FIVE_ANGLES),
      shop.ground(findGround('silver-fine')),
      { coat: candy },
      [0, 1, 2, 3, 4, 5, 6, 7],
    ).map((l) => labToLch(l[1]!));
    for (let n = 1; n < face.length; n++) expect(face[n]![0]).toBeLessThan(face[n - 1]![0]);
    const gain = (n: number) => face[n]![1] - face[n - 1]![1];
    expect(gain(1)).toBeGreaterThan(20);
    expect(gain(2)).toBeGreaterThan(gain(4));
    expect(gain(7)).toBeLessThan(gain(1) / 6);
  });

  it('moves colour-shift to shorter wavelengths with the lower lamp, as a thinner spacer would', () => {
    for (const id of ['tideline-shift', 'kelp-shift', 'ember-shift']) {
      const { optics } = EFFECT_PIGMENTS.find((p) => p.id === id)!;
      if (optics.kind !== 'thinFilm') throw new Error('a colour-shift is a thin film');
      const [absorber, spacer] = optics.layers as [SpectralLayer, SpectralLayer];
      const face = (incidence: number, nm: number): Lab =>
        look(
          [
            {
              flakes: { cover: 0.7, tilt: 5, edge: 0.02, optics: { ...optics, layers: [absorber, { ...spacer, nm }] } },
            },
          ],
          black,
          [{ incidence, aspecular: 15 }],
        )[0]!;
      const low = labToLch(face(65, spacer.nm));
      const candidates = Array.from({ length: 19 }, (_, k) => spacer.nm * (0.6 + k * 0.025));
      const off = (nm: number) => {
        const [, c, h] = labToLch(face(20, nm));
        return Math.hypot(
          c * Math.cos((h * Math.PI) / 180) - low[1] * Math.cos((low[2] * Math.PI) / 180),
          c * Math.sin((h * Math.PI) / 180) - low[1] * Math.sin((low[2] * Math.PI) / 180),
        );
      };
      const alike = candidates.reduce((p, q) => (off(q) < off(p) ? q : p));
      // Snell: at 65 degrees the light crosses the spacer at about cos 0.79 against 0.99 at 20 degrees.
      expect(alike / spacer.nm).toBeGreaterThan(0.7);
      expect(alike / spacer.nm).toBeLessThan(0.92);
    }
  });

  // Interference in the spacer: 2 n d cos(theta) = (m - phase) lambda. The metals' phase shifts every order alike, so the peak moves
  // with cos(theta); within 4 %.
  it('moves the peak of a colour-shift flake with the cosine in its spacer, and to shorter waves', () => {
    const spacerN = 1.38;
    for (const id of ['tideline-shift', 'kelp-shift', 'ember-shift']) {
      const { optics } = EFFECT_PIGMENTS.find((p) => p.id === id)!;
      const { r } = tabulateFlake(optics, 1.5);
      const peak = (cosine: number, near: number) => {
        const at = (i: number) => readFlake({ ...tabulateFlake(optics, 1.5), r }, r, i, cosine);
        const found = Array.from({ length: 31 }, (_, i) => i).filter(
          (i) => i > 0 && i < 30 && at(i) >= at(i - 1) && at(i) >= at(i + 1),
        );
        // Parabola through the top.
        const peaks = found.map((i) => {
          const [a, b, c] = [at(i - 1), at(i), at(i + 1)];
          return 400 + 10 * (i + (0.5 * (a - c)) / (a - 2 * b + c));
        });
        return peaks.reduce((x, y) => (Math.abs(y - near) < Math.abs(x - near) ? y : x), Infinity);
      };
      const inside = (cosine: number) => Math.sqrt(1 - (1.5 / spacerN) ** 2 * (1 - cosine ** 2));
      const start = peak(1, 600);
      let before = start;
      for (const cosine of [0.98, 0.95, 0.92]) {
        const expected = (start * inside(cosine)) / inside(1);
        const moved = peak(cosine, expected);
        if (!Number.isFinite(moved)) continue;
        expect(Math.abs(moved / expected - 1)).toBeLessThan(0.04);
        expect(moved).toBeLessThan(before);
        before = moved;
      }
      expect(before).toBeLessThan(start);
    }
  });

  it('makes a red dye over gold warmer and brighter at the face than over grey', () => {
    const red = shop.coat(findMix('cinder-candy'), 1);
    const at = (id: string) =>
      ladderLabs(shop.model(FIVE_ANGLES), shop.ground(findGround(id)), { coat: red }, [2])[0]![0]!;
    const gold = at('gold');
    const grey = at('grey-63');
    expect(gold[0]).toBeGreaterThan(grey[0] + 10);
    expect(gold[2]).toBeGreaterThan(grey[2] + 3);
  });

  // The hues a painter calls gold and copper, and that one candy over each looks another: from memory.
  it('makes gold golden and copper coppery at 45 degrees, and one candy another over each of them', () => {
    const angles = FIVE_ANGLES;
    const over = (layers: readonly SwatchLayer[]) => factorsToLabs(swatchFactors(shop, shop.model(angles), layers));
    const ground = (id: string): SwatchLayer => ({ kind: 'ground', id, coats: 2 });
    const at45 = (id: string) => labToLch(over([ground(id)])[2]!);
    const [, goldC, goldH] = at45('gold');
    expect(goldC).toBeGreaterThanOrEqual(25);
    expect(goldH).toBeGreaterThan(70);
    expect(goldH).toBeLessThan(95);
    const [, copperC, copperH] = at45('copper');
    expect(copperC).toBeGreaterThanOrEqual(25);
    expect(copperH).toBeGreaterThan(40);
    expect(copperH).toBeLessThan(65);
    const candy = (id: string) => over([ground(id), { kind: 'effect', id: 'cinder-candy', coats: 4 }]);
    const [silver, gold, copper] = ['silver-fine', 'gold', 'copper'].map(candy) as [Lab[], Lab[], Lab[]];
    for (const g of [0, 1, 2]) {
      expect(de2000(silver[g]!, gold[g]!)).toBeGreaterThan(5);
      expect(de2000(silver[g]!, copper[g]!)).toBeGreaterThan(5);
      expect(de2000(gold[g]!, copper[g]!)).toBeGreaterThan(2);
    }
    // Over gold the red turns toward orange, over copper it is the deepest.
    expect(labToLch(gold[0]!)[2]).toBeGreaterThan(labToLch(silver[0]!)[2] + 5);
    expect(copper[0]![0]).toBeLessThan(silver[0]![0] - 3);
    // A copper target is answered by copper.
    const nearest = shop
      .grounds()
      .map((g) => ({ id: g.id, off: de2000(candy(g.id)[2]!, copper[2]!) }))
      .reduce((a, b) => (b.off < a.off ? b : a));
    expect(nearest.id).toBe('copper');
  });

  const seen = (layers: readonly SwatchLayer[], angles = FIVE_ANGLES): Lab[] =>
    factorsToLabs(swatchFactors(shop, shop.model(angles), layers));

  it('keeps a weak yellow clean over white and turns it toward olive over grey, less with every coat', () => {
    const yellow = (groundId: string, coats: number) =>
      seen([
        { kind: 'ground', id: groundId, coats: 4 },
        { kind: 'effect', id: 'lemon-ice', coats },
      ])[2]!;
    for (const coats of [2, 3, 4]) {
      const [l, a] = yellow('white', coats);
      const [white, grey, dark] = ['white', 'grey-63', 'grey-41'].map((g) => labToLch(yellow(g, coats)));
      expect(l).toBeGreaterThan(85);
      expect(Math.abs(a)).toBeLessThan(8);
      // Olive: greener, greyer and darker.
      expect(grey![2]).toBeGreaterThan(white![2] + 2);
      expect(dark![2]).toBeGreaterThan(grey![2] + 2);
      expect(grey![1]).toBeLessThan(0.75 * white![1]);
      expect(grey![0]).toBeLessThan(white![0] - 15);
    }
    const apart = (coats: number) => de2000(yellow('white', coats), yellow('grey-41', coats));
    expect(apart(4)).toBeLessThan(apart(3));
    expect(apart(3)).toBeLessThan(apart(2));
  });

  it('keeps colour-shift over black dark in the flop, not black', () => {
    for (const coats of [1, 2]) {
      const [, , , side, flop] = seen([
        { kind: 'ground', id: 'black', coats: 2, style: 'medium' },
        { kind: 'effect', id: 'moon-face-shift', coats: 1, style: 'medium' },
        { kind: 'effect', id: 'moon-face-shift', coats, style: 'control' },
      ]);
      for (const lab of [side!, flop!]) {
        expect(lab[0]).toBeGreaterThan(2);
        expect(lab[0]).toBeLessThan(20);
      }
    }
  });

  it('lets what lies below a ground show until it hides, and not from there on', () => {
    const white = (coats: number) => seen([{ kind: 'ground', id: 'white', coats }])[2]![0];
    const ladder = [0.5, 1, 1.5, 2, 2.5, 3, 5].map(white);
    for (let i = 1; i < ladder.length - 1; i++) expect(ladder[i]).toBeGreaterThan(ladder[i - 1]!);
    expect(ladder.at(-1)).toBe(ladder.at(-2));
    // What is left to the coat in which it hides is what its criterion leaves.
    expect(ladder[5]! - white(2.999)).toBeLessThan(1.5);
    const material = findGround('white');
    expect(shop.shows(material, 0)).toBe(1);
    expect(shop.shows(material, 1)).toBeLessThan(0.5);
    expect(shop.shows(material, 3)).toBe(0);
  });

  // Ranges from memory.
  it('gives a silver metallic the usual ladder of lightness and flop index', () => {
    const silver = look([pigmentCoat('aluminium-coarse', 0.95)], flatSpectrum(0.2));
    expect(silver[0]![0]).toBeGreaterThan(115);
    expect(silver[2]![0]).toBeGreaterThan(40);
    expect(silver[2]![0]).toBeLessThan(75);
    expect(silver[4]![0]).toBeLessThan(45);
    const flop = flopIndex(silver[0]![0], silver[2]![0], silver[4]![0]);
    expect(flop).toBeGreaterThan(8);
    expect(flop).toBeLessThan(24);
  });

  it('prepares every material of the library, and keeps each solid ground its own look under clear', () => {
    expect(EFFECT_PIGMENTS.length).toBeGreaterThanOrEqual(16);
    expect(DYES.length).toBeGreaterThanOrEqual(10);
    for (const p of EFFECT_PIGMENTS) expect(look([pigmentCoat(p.id, 0.5)], white)[0]![0]).toBeGreaterThan(20);
    for (const g of GROUNDS.filter((m) => !m.flakes)) {
      const ground = shop.ground(g);
      const lab = factorsToLabs(shop.model([{ incidence: 45, aspecular: 45 }]).evaluate(ground, []))[0]!;
      lab.forEach((v, i) => expect(Math.abs(v - g.lab[i]!)).toBeLessThan(0.2));
    }
  });
});

describe('differences in words', () => {
  it('says lightness, strength and the way the hue turned', () => {
    expect(describeDifference([50, 40, 0], [52, 40, 0]).text).toBe('lighter 2.0');
    expect(describeDifference([50, 40, 0], [50, 39.8, 3]).text).toBe('yellower 3.0');
    expect(describeDifference([50, 40, 0], [50, 39.8, -3]).text).toBe('bluer 3.0');
    expect(describeDifference([50, 0, 40], [50, 3, 39.8]).text).toBe('redder 3.0');
    expect(describeDifference([50, 20, 20], [50, 10, 10]).text).toBe('weaker 14.1');
    expect(describeDifference([50, 0, 0], [50, 0.1, -0.9]).text).toBe('bluer 0.9');
    expect(describeDifference([50, 10, 10], [50, 10, 10.1]).text).toBe('level');
  });
});
