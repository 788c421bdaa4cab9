import { describe, expect, it } from '@jest/globals';
import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { D65_10 } from '../colour/tristimulus';
import { defaultTolerance } from '../finishes/tolerances';
import { STYLES } from '../finishes/styles';
import { factorsToLabs } from '../matching/ladder';
import { coverFromParts, depthFromParts } from '../materials/mixStrength';
import { mixCoat } from '../materials/mixes';
import { prepareLibrary } from '../materials/shop';
import { createRandom } from '../numeric/random';
import { prepareCoat } from '../optics/coat';
import { FIVE_ANGLES } from '../optics/geometry';
import { evaluateReference } from '../optics/stack';
import { formulate, formulateAll } from './formulate';
import { paretoPourables, PART_STEP, pourables, type Pourable } from './pourable';
import type { FormulateInput } from './shelf';

const shop = prepareLibrary();
const { film, library } = shop;
const model = shop.model(FIVE_ANGLES);
const style = STYLES.wet;
const FILM_UM = 9;
/** A small shelf: what is tried here is whether what is hidden on it is found, not how fast. */
const grounds = shop.grounds().filter((g) => ['white', 'grey-52', 'aqua-pastel'].includes(g.id));
const pigments = library.pigments.filter((p) =>
  ['white-pearl-coarse', 'blue-pearl-fine', 'gold-pearl-coarse', 'aluminium-fine'].includes(p.id),
);
const dyes = library.dyes.filter((d) => ['lagoon-blue', 'cinder-red', 'marsh-gold', 'plum-violet'].includes(d.id));

interface Made {
  readonly groundId: string;
  readonly flakes: readonly { readonly pigmentId: string; readonly cover: number }[];
  readonly dyes: readonly { readonly dyeId: string; readonly depth: number }[];
  readonly coats: number;
}

/** By the reference tier, as a mix of the library is laid. */
function seen({ groundId, flakes, dyes: inks, coats }: Made): Lab[] {
  const coat = prepareCoat(film, mixCoat({ flakes, dyes: inks, solids: [], filmUm: FILM_UM }, library));
  const laid = {
    ...coat,
    factor: coats * style.film,
    flakes: coat.flakes.map((f) => ({ ...f, tilt: f.tilt * style.spread })),
  };
  const ground = grounds.find((g) => g.id === groundId)!;
  return factorsToLabs(evaluateReference(model.optics, ground, [...ground.coats, laid]), D65_10);
}

const inputFor = (labs: readonly Lab[], more: Partial<FormulateInput> = {}): FormulateInput => ({
  ...{ film, model, style, filmUm: FILM_UM, mostPigments: 2, mostDyes: 2, counts: [2, 3, 4] },
  shelf: { grounds, pigments, dyes },
  target: FIVE_ANGLES.map((g, i) => ({ ...g, lab: labs[i]!, tolerance: defaultTolerance(g.aspecular) })),
  ...more,
});
const worst = (a: readonly Lab[], b: readonly Lab[]) => Math.max(...a.map((lab, g) => de2000(lab, b[g]!)));

describe('find the mix', () => {
  const hidden = (seed: number): Made => {
    const random = createRandom(seed);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
    return {
      groundId: pick(grounds).id,
      flakes: [pick(pigments), pick(pigments)].map((p) => ({ pigmentId: p.id, cover: 0.05 + 0.25 * random() })),
      dyes: [pick(dyes), pick(dyes)].map((d) => ({ dyeId: d.id, depth: 0.05 + 0.5 * random() })),
      coats: 2 + Math.floor(3 * random()),
    };
  };
  it('finds what was hidden on the shelf again, by the reference tier within 1 dE00 at every angle', () => {
    for (const seed of [1, 2, 3]) {
      const truth = seen(hidden(seed));
      const [best] = formulateAll(inputFor(truth));
      const made = seen({
        groundId: best!.groundId,
        flakes: best!.pigments.map((p) => ({ pigmentId: p.pigmentId, cover: -Math.expm1(-p.tau) })),
        dyes: best!.dyes,
        coats: best!.coats,
      });
      expect(worst(truth, made)).toBeLessThan(1);
      // What it says of itself is what it is.
      expect(Math.abs(worst(truth, made) - best!.maxDe)).toBeLessThan(0.05);
    }
  });
  it('says how far it is and what is best so far, and can be left between its steps', () => {
    const walk = formulate(inputFor(seen(hidden(4))));
    const first = walk.next();
    expect(first.done).toBe(false);
    if (first.done) return;
    expect(first.value.best).not.toBeNull();
    let [done, off] = [first.value.done, first.value.best!.maxDe];
    for (;;) {
      const step = walk.next();
      if (step.done) {
        expect(step.value[0]!.maxDe).toBeLessThanOrEqual(off + 0.3);
        break;
      }
      expect(step.value.done).toBeGreaterThanOrEqual(done);
      ({ done } = step.value);
      off = step.value.best!.maxDe;
    }
  });
  it('keeps to what it may use', () => {
    const truth = seen(hidden(5));
    for (const [mostPigments, mostDyes] of [
      [0, 2],
      [1, 0],
      [0, 0],
    ] as const)
      for (const mix of formulateAll(inputFor(truth, { mostPigments, mostDyes }))) {
        expect(mix.pigments.length).toBeLessThanOrEqual(mostPigments);
        expect(mix.dyes.length).toBeLessThanOrEqual(mostDyes);
        for (const v of [...mix.pigments.map((p) => p.tau), ...mix.dyes.map((d) => d.depth)])
          expect(v).toBeGreaterThan(0);
      }
  });
});

describe('what can be poured', () => {
  const truth = seen({
    groundId: 'white',
    flakes: [{ pigmentId: 'blue-pearl-fine', cover: 0.22 }],
    dyes: [{ dyeId: 'lagoon-blue', depth: 0.3 }],
    coats: 3,
  });
  const input = inputFor(truth);
  const found = formulateAll(input).slice(0, 4);
  const all = found.flatMap((m) => pourables(input, m));

  it('is in steps of a scale, and after rounding within 0.3 dE00 of what it was', () => {
    expect(all.length).toBeGreaterThan(3);
    for (const mix of all) {
      for (const { parts } of mix.parts)
        expect(Math.abs(parts / PART_STEP - Math.round(parts / PART_STEP))).toBeLessThan(1e-6);
    }
    // What is shown moved by rounding less than an eye tells, looked at by what its parts come to.
    for (const mix of paretoPourables(all)) expect(mix.rounded).toBeLessThanOrEqual(0.3);
  });
  it('opens no can for what hardly shows', () => {
    const hue = all.find((m) => m.dyes.length > 0)!;
    expect(hue.parts.every((p) => p.parts >= PART_STEP)).toBe(true);
    expect(Math.min(...all.map((m) => m.cans))).toBeLessThanOrEqual(3);
  });
  it('covers and colours as its parts say, by the rules every mix here follows', () => {
    for (const mix of all) {
      for (const p of mix.pigments) {
        const parts = mix.parts.find((x) => x.id === p.pigmentId)!;
        const { thicknessUm } = pigments.find((x) => x.id === p.pigmentId)!;
        expect(p.cover).toBeCloseTo(coverFromParts(parts.parts, 100, FILM_UM, thicknessUm), 9);
      }
      for (const d of mix.dyes)
        expect(d.depth).toBeCloseTo(depthFromParts(mix.parts.find((x) => x.id === d.dyeId)!.parts, 100, FILM_UM), 9);
    }
  });
  it('passes at its own count where it says that it passes', () => {
    for (const mix of all)
      if (mix.window && mix.toleranceRatio < 0.9) expect(mix.coats).toBeGreaterThan(mix.window[0] - 0.3);
    expect(all.some((m) => m.window !== null)).toBe(true);
  });
  it('is none that another beats in everything', () => {
    const kept = paretoPourables(all);
    expect(kept.length).toBeGreaterThan(0);
    const beats = (a: Pourable, b: Pourable) =>
      Math.max(0.3, a.toleranceRatio) < Math.max(0.3, b.toleranceRatio) - 1e-9 &&
      a.forgiveness > b.forgiveness + 1e-9 &&
      a.coats < b.coats &&
      a.cans < b.cans;
    for (const mix of kept) expect(all.some((o) => beats(o, mix))).toBe(false);
  });
});
