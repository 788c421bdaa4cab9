import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { reflectanceToLab, type Lab } from '../colour/lab';
import { type DemoTruth } from '../demo/demoReadings';
import { createRandom } from '../numeric/random';
import { FIVE_ANGLES } from '../optics/geometry';
import { adviseFirst, cardSd } from './advise';
import { answerCard, fitWord, linesBest } from './answer';
import { byAngle } from './bestCount';
import { createCardFilm, spotFilm } from './cardFilm';
import { readLadder, tabulateLadder } from './ladderTable';
import { ladderLabs } from '../matching/ladder';
import { noiseAt, noiseOf, noiseOfSpots } from './readings';
import { believedOf, shiftGround } from './variation';
import { ladderOf, base, KINDS, NOMINAL, model, targetOf, cardOf, rungsOf, read } from '../testdata/ladders';

describe('the table of a ladder', () => {
  it('is the film model at its knots and close to it between them, also with a variation moved', () => {
    const of = ladderOf({ ...base, ...KINDS[0], hand: NOMINAL });
    const believed = believedOf(of.ground, of.recipe);
    expect(believed.map((b) => b.id)).toEqual([
      ...['flake', 'spread', 'edge', 'layers', 'hue', 'band'],
      ...['groundL', 'groundA', 'groundB'],
    ]);
    const table = tabulateLadder(
      of,
      believed,
      believed.map(() => 0),
    );
    const out = new Float64Array(15);
    const still = believed.map(() => 0);
    for (const [x, within] of [
      [1, 0.001],
      [2.3, 0.001],
      [2.05, 0.05],
      [0.5, 0.15],
    ] as const) {
      readLadder(table, x, still, out);
      const [asked] = ladderLabs(model, of.ground, of.recipe, [x]);
      asked!.forEach((lab, g) =>
        [0, 1, 2].forEach((c) => expect(Math.abs(out[3 * g + c]! - lab[c as 0])).toBeLessThan(within)),
      );
    }
    // One sd of flake spread, straight from the derivative, against the model.
    readLadder(
      table,
      2,
      still.map((_, p) => (believed[p]!.id === 'spread' ? 1 : 0)),
      out,
    );
    const hand = { film: 1, flake: 1, spread: Math.exp(0.12) };
    const [moved] = ladderLabs(model, of.ground, { ...of.recipe, hand }, [2]);
    moved!.forEach((lab, g) => expect(Math.abs(out[3 * g]! - lab[0])).toBeLessThan(0.6));
  });

  it('has film that adds up, whatever the coats do, and derivatives that are those of it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -2, max: 2, noNaN: true }), { minLength: 7, maxLength: 7 }),
        fc.double({ min: 0.25, max: 4, noNaN: true }),
        (u, n) => {
          const film = createCardFilm(4);
          const at = (v: readonly number[]) => film.film(n, film.deviations(v));
          expect(film.film(n, film.deviations(u.map(() => 0)))).toBeCloseTo(n, 9);
          const by = new Float64Array(film.coats);
          film.byCoat(n, film.deviations(u), by);
          u.forEach((_, k) => {
            const step = 1e-5;
            const up = at(u.map((v, j) => (j === k ? v + step : v)));
            const down = at(u.map((v, j) => (j === k ? v - step : v)));
            expect(by[k]).toBeCloseTo((up - down) / (2 * step), 4);
          });
        },
      ),
      { numRuns: 40 },
    );
    expect(spotFilm(2).slope).toBeCloseTo((spotFilm(2.001).sd - spotFilm(1.999).sd) / 0.002, 5);
  });
});

describe('readings', () => {
  it('scatter as repeated spots show it, and as usual where none were repeated', () => {
    const lab = (l: number): Lab => [l, 0, 0];
    // Variances 2 on L*, 0 on a* and b*: pooled over three axes sqrt(2 / 3).
    expect(noiseOfSpots([[[lab(50)], [lab(52)]]])).toBeCloseTo(Math.sqrt(2 / 3), 12);
    expect(noiseOfSpots([[[lab(50)]], [[null], [lab(3)]]])).toBeNull();
    expect(noiseAt(noiseOf(null, [50]), 0, 50)).toBeCloseTo(0.6, 12);
    expect(noiseAt(noiseOf([0.4, 0.9], [50, 20]), 1, 50)).toBe(0.9);
    // A single figure is drawn half way to the usual one.
    expect(noiseAt(noiseOf(0.2, [50]), 0, 50)).toBeCloseTo((0.2 + 0.8) / 2, 12);
  });

  it('of another instrument are doubted most where the target changes fastest with its angle', () => {
    const target = targetOf([15, 25, 45, 75, 110].map((a): Lab => [120 - a, 0, 0]));
    const q = byAngle(target.angles);
    expect(q[1]![0]).toBeCloseTo(-1, 9);
    expect(q[0]![0]).toBeCloseTo(-1.4, 9);
    expect(byAngle(target.angles.slice(0, 1))).toEqual([[0, 0, 0]]);
  });
});

describe('reading a card', () => {
  // The truth is made by the reference tier with another edge share and reading noise than the fit knows.
  it('finds film per coat from two rungs and the bare ground, for random painters of three families', () => {
    const random = createRandom(11);
    const errors: number[] = [];
    for (let i = 0; i < 9; i++) {
      const hand = { film: 0.75 + 0.55 * random(), flake: 1, spread: 0.88 + 0.26 * random() };
      const truth: DemoTruth = { ...base, ...KINDS[i % 3]!, hand };
      const card = cardOf(truth, rungsOf(truth, [1, 2], 100 + i), undefined, {}, read(truth, 0, 300 + i));
      errors.push(Math.abs(card.fit!.film.mean - Math.log(hand.film)));
    }
    errors.sort((a, b) => a - b);
    expect(errors.at(-2)).toBeLessThan(0.14);
    expect(errors[4]).toBeLessThan(0.08);
  });

  it('changes the count with the hand, says how sure it is, and trusts a card in the hand less', () => {
    const truth: DemoTruth = { ...base, ...KINDS[0], hand: { film: 1.25, flake: 1, spread: 0.95 } };
    const rungs = rungsOf(truth, [1, 2, 3], 70);
    const target = targetOf(read({ ...truth, hand: NOMINAL }, 3, 5, ['1', '2', '3']));
    const before = cardOf(truth, [], target);
    const after = cardOf(truth, rungs, target);
    expect(before.fit).toBeNull();
    expect(Math.abs(before.best - 3 / 1.04)).toBeLessThan(0.35);
    expect(Math.abs(after.best - 3 / 1.25)).toBeLessThan(0.25);
    expect(cardSd(after)).toBeLessThan(cardSd(before) / 2);
    expect(after.card90[0]).toBeLessThan(after.best);
    expect(after.card90[1]).toBeGreaterThan(after.best);
    // What the object needs is less sure than what the card says.
    expect(after.object90[1] - after.object90[0]).toBeGreaterThan(after.card90[1] - after.card90[0]);
    const inTheHand = cardOf(truth, rungs, target, { handHeld: true });
    expect(inTheHand.best).toBe(after.best);
    expect(cardSd(inTheHand)).toBeGreaterThan(cardSd(after) * 1.2);
    expect(adviseFirst(inTheHand).spray).toBeLessThanOrEqual(adviseFirst(after).spray);
    // Two instruments: wider, never narrower.
    const two = cardOf(truth, rungs, { ...target, sameInstrument: false });
    expect(cardSd(two)).toBeGreaterThan(cardSd(after));
    // The same request has the same answer.
    expect(cardOf(truth, rungs, target).deviations).toEqual(after.deviations);
  });

  it('proposes a rung that would settle more, and none that was read', () => {
    const truth: DemoTruth = { ...base, ...KINDS[0], hand: { film: 1.1, flake: 1, spread: 1 } };
    const { nextRung } = cardOf(truth, rungsOf(truth, [1], 70), undefined, { proposes: true });
    expect(nextRung!.coats).toBeGreaterThan(1);
    expect(nextRung!.leaves).toBeGreaterThan(0);
    expect(nextRung!.leaves).toBeLessThan(0.9);
    // Of those that are left: half a coat is one, nothing more than a coat and a half above the count is.
    const all = [1, 1.5, 2, 2.5, 3, 3.5, 4];
    const left = cardOf(truth, rungsOf(truth, all, 70), undefined, { proposes: true });
    expect(left.best).toBeLessThan(2.5);
    expect(left.nextRung!.coats).toBe(0.5);
    expect(cardOf(truth, rungsOf(truth, [0.5, ...all], 70), undefined, { proposes: true }).nextRung).toBeNull();
    // Five coats match: the last that may be proposed is six.
    const thick: DemoTruth = { ...truth, hand: NOMINAL };
    const much = targetOf(read(thick, 4.9, 5, ['1', '2', '3']));
    const high = cardOf(thick, rungsOf(thick, [0.5, ...all, 5], 70), much, { proposes: true });
    expect(high.best).toBeGreaterThan(4.5);
    expect(high.nextRung!.coats).toBe(6);
  });

  it('says how far a fit can be trusted: by how much was read, how far it had to stray, and what is left over', () => {
    const truth: DemoTruth = { ...base, ...KINDS[0], hand: NOMINAL };
    const { fit } = cardOf(truth, rungsOf(truth, [1, 2, 3], 91));
    const word = (data: number, lambda: number, chi: number) => fitWord({ fit: { ...fit!, data, lambda, chi } });
    expect(word(12, 1, 1.3)).toBe('good');
    expect(word(11, 1, 1)).toBe('few');
    expect([word(12, 2, 1), word(12, 1, 1.31), word(12, 3.9, 2)]).toEqual(['fair', 'fair', 'fair']);
    expect([word(12, 4, 1), word(12, 1, 2.1), word(12, 4, 2.1)]).toEqual(['poor', 'poor', 'poor']);
  });

  it('a ground that is somewhat off is bent to just that look, whatever way it is off', () => {
    const { ground } = ladderOf({ ...base, ...KINDS[0], hand: NOMINAL });
    const shift = shiftGround(ground);
    const still = reflectanceToLab(ground.albedo);
    expect(shift([0, 0, 0])).toBe(ground);
    for (const offset of [
      [1, 1, 1],
      [-1, 0.5, 0],
      [0, 0, -1],
    ] as const)
      reflectanceToLab(shift(offset).albedo).forEach((v, k) => expect(v - still[k]!).toBeCloseTo(offset[k]!, 0));
  });

  it('names rungs that changed places and the rung that is wrong, and blames none of a right card', () => {
    for (const [i, kind] of KINDS.entries()) {
      const truth: DemoTruth = { ...base, ...kind, hand: { film: 1.05, flake: 1, spread: 1 } };
      const rungs = rungsOf(truth, [1, 2, 3, 4], 80 + 10 * i);
      const right = cardOf(truth, rungs).fit!;
      expect([right.swapped, right.doubtful]).toEqual([[], []]);
      const swapped = rungs.map((r) => ({
        ...r,
        labs: rungs[r.coats === 2 ? 2 : r.coats === 3 ? 1 : r.coats - 1]!.labs,
      }));
      const found = cardOf(truth, swapped);
      expect(found.fit!.swapped).toEqual([[2, 3]]);
      expect(Math.abs(found.best - cardOf(truth, rungs).best)).toBeLessThan(1e-9);
      const wrong = rungs.map((r) =>
        r.coats === 3 ? { ...r, labs: r.labs.map((l): Lab => [l![0] + 12, l![1] - 9, l![2]]) } : r,
      );
      const blamed = cardOf(truth, wrong);
      expect(blamed.fit!.doubtful).toEqual([3]);
      expect(Math.abs(blamed.best - cardOf(truth, rungs).best)).toBeLessThan(0.35);
    }
  });

  it('uses a card read at some angles only, and one with no readings as no card', () => {
    const truth: DemoTruth = { ...base, ...KINDS[1], hand: { film: 0.85, flake: 1, spread: 1 } };
    const some = rungsOf(truth, [2, 3], 60).map((r) => ({ ...r, labs: r.labs.map((l, g) => (g === 2 ? l : null)) }));
    const fit = cardOf(truth, some).fit!;
    expect(fit.data).toBe(6);
    expect(Math.abs(fit.film.mean - Math.log(0.85))).toBeLessThan(0.2);
    expect(cardOf(truth, [{ coats: 2, labs: FIVE_ANGLES.map(() => null) }]).fit).toBeNull();
  });

  it('strays further where the finish is not what the model knows, and says the fit is poor', () => {
    const truth: DemoTruth = { ...base, ...KINDS[0], hand: { film: 1, flake: 1, spread: 1 } };
    const odd = rungsOf(truth, [1, 2, 3, 4], 90).map((r) => ({
      ...r,
      labs: r.labs.map((l, g): Lab => [
        l![0],
        l![1] + 5 * (g - 2) * (r.coats - 1),
        l![2] - 4 * (g - 1) * (r.coats - 1),
      ]),
    }));
    const card = cardOf(truth, odd);
    expect(card.fit!.lambda).toBeGreaterThan(1);
    expect(fitWord(card)).not.toBe('good');
    expect(fitWord(cardOf(truth, rungsOf(truth, [1, 2, 3, 4], 91)))).toBe('good');
    expect(fitWord({ fit: null })).toBeNull();
  });

  it('is said beside what a ruler through its rungs says, where there are three', () => {
    const truth: DemoTruth = { ...base, ...KINDS[1], hand: { film: 1.1, flake: 1, spread: 1 } };
    const rungs = rungsOf(truth, [1, 2, 3, 4], 33);
    const card = cardOf(truth, rungs);
    expect(Math.abs(linesBest(card, rungs)! - card.best)).toBeLessThan(0.4);
    expect(linesBest(card, rungs.slice(0, 2))).toBeNull();
  });

  it('with nothing picked and nothing said has no answer; by eye alone it has one with its own colour as target', () => {
    const nothing = { target: null, bare: null, rungs: [], verdicts: [], handHeld: false, believed: {} };
    expect(answerCard(null, nothing)).toBeNull();
    const verdicts = [2, 3, 4].map((coats) => ({
      coats,
      view: 'shade' as const,
      verdict: (['lighter', 'match', 'darker'] as const)[coats - 2]!,
    }));
    const of = ladderOf({ ...base, ...KINDS[1], hand: NOMINAL });
    const found = answerCard(of, { ...nothing, verdicts })!;
    expect(Math.abs(found.card.best - 3)).toBeLessThan(0.35);
    expect(found.card.window.inside).toBe(true);
    const blind = answerCard(null, { ...nothing, verdicts })!;
    expect(Math.abs(blind.card.best - 3)).toBeLessThan(0.35);
    // Where no model can be run nothing narrow follows.
    expect(blind.eye!.interval[1] - blind.eye!.interval[0]).toBeGreaterThan(
      found.eye!.interval[1] - found.eye!.interval[0],
    );
  });
});
