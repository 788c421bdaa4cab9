import { D65_10, labOf, type Lab } from '@steady-gleam/core/colour';
import { defaultTolerance } from '@steady-gleam/core/finishes';
import { looksOf } from '@steady-gleam/core/jobs';
import { adviseFirst, answerCard, liveAdvice, liveState, noiseOf } from '@steady-gleam/core/letdown';
import { labToAlbedo } from '@steady-gleam/core/materials';
import { createFastModel, createFilm, createOptics, prepareCoat } from '@steady-gleam/core/optics';
import { describe, expect, it } from '@jest/globals';
import { ask } from './testdata/ask';

describe('what the calculator advises', () => {
  describe('advise', () => {
    const five = [15, 25, 45, 75, 110].map((aspecular) => ({ incidence: 45, aspecular }));
    const dyed = {
      dye: {
        start: 400,
        step: 10,
        values: Array.from({ length: 31 }, (_, i) => (i < 16 ? 0.9 : 0.9 * 0.72 ** (i - 15))),
      },
    };
    const base = { do: 'advise', ground: { lab: [80, 0, 4] }, coat: dyed };
    const ladder = (coats: number[]) =>
      (
        ask({
          ...{ do: 'ladder', ground: base.ground, coat: dyed },
          ...{
            coats: { from: coats[0], to: coats.at(-1), step: 0.5 },
            target: five.map((g) => ({ ...g, lab: [50, 20, 10] })),
          },
        }).result as { steps: { coats: number; labs: Lab[] }[] }
      ).steps.filter((s) => coats.includes(s.coats));
    const [one, two, wanted, three, four] = ladder([1, 2, 2.5, 3, 4]).map((s) => s.labs) as [
      Lab[],
      Lab[],
      Lab[],
      Lab[],
      Lab[],
    ];
    const target = five.map((g, k) => ({ ...g, lab: wanted[k] }));
    const rungs = [one, two, three, four].map((labs, k) => ({ coats: k + 1, labs }));
    const advise = (more: object) => {
      const reply = ask({ ...base, target, rungs, ...more });
      expect(reply.error).toBeUndefined();
      return reply.result as Record<string, number> &
        Record<string, number[]> & { chances: Record<string, number>; kind: string; window: number[] | null };
    };

    it('reads a card without noise as it was made, and stops short of its best count', () => {
      const said = advise({ at: [2.5], noise: 0.3 });
      expect(said['best']).toBeCloseTo(2.5, 1);
      expect(said.kind).toBe('inside');
      expect(said.window![0]).toBeLessThan(2.5);
      expect(said.window![1]).toBeGreaterThan(2.5);
      expect(said['spray']).toBeLessThanOrEqual(2.5);
      expect(said['spray']! * 4).toBeCloseTo(Math.round(said['spray']! * 4), 9);
      expect(said.chances['over']).toBeLessThanOrEqual(0.02);
      expect(said.chances['under']! + said.chances['in']! + said.chances['over']!).toBeCloseTo(1, 9);
      expect(said['fit']).toBeLessThan(1);
    });

    it('names exchanged rungs by the counts as sent, and works with them put right', () => {
      const swapped = rungs.map((r, k) => ({ ...r, labs: rungs[k === 1 ? 2 : k === 2 ? 1 : k]!.labs }));
      const said = advise({ rungs: swapped });
      expect(said['swapped']).toEqual([[2, 3]]);
      expect(said['best']).toBeCloseTo(advise({})['best']!, 6);
    });

    it('after a look lays tenths towards the target, and nothing where it is there', () => {
      const short = advise({ looks: [{ sprayed: 2, labs: two, spots: 3 }], looksLeft: 1 });
      expect(short['spray']).toBeGreaterThan(0.1);
      expect(short['spray']).toBeLessThanOrEqual(0.7);
      expect(short['left']).toBeCloseTo(0.5, 0);
      expect(
        advise({ looks: [{ sprayed: 2, labs: wanted, spots: 9, wet: false }], looksLeft: 1 })['spray'],
      ).toBeLessThanOrEqual(0.1);
      expect(advise({ looks: [{ sprayed: 3, labs: three, spots: 9, wet: false }], looksLeft: 0 })['spray']).toBe(0);
    });

    it('without a card gives the nominal answer with its wide interval; what can’t be reached gets the closest', () => {
      const nominal = advise({ rungs: [] });
      const read = advise({});
      const width = (r: Record<string, number[]>) => r['card90']![1]! - r['card90']![0]!;
      expect(width(nominal)).toBeGreaterThan(2 * width(read));
      const far = advise({ target: target.map((t) => ({ ...t, lab: [t.lab![0] + 12, t.lab![1] - 8, t.lab![2]] })) });
      expect(far.kind).toBe('closest');
      expect(far.window).toBeNull();
      expect(far['closest']).toHaveLength(2);
      expect(far['spray']).toBeGreaterThan(0);
    });

    it('says what the screens say for the same evidence: card, first stop, and the amount after a look', () => {
      const film = createFilm();
      const angles = target.map((t) => ({
        ...t,
        lab: labOf(t.lab!),
        tolerance: defaultTolerance(t.aspecular),
      }));
      const of = {
        model: createFastModel(createOptics(film, angles)),
        ground: { albedo: labToAlbedo(film, [80, 0, 4]), coats: [] },
        recipe: { coat: prepareCoat(film, { dye: Float64Array.from(dyed.dye.values) }) },
        viewing: D65_10,
      };
      const noise = noiseOf(null, []);
      // As the let-down page, On the job and the booth ask.
      const { card, read } = answerCard(of, {
        target: { angles, spots: 3, sameInstrument: true, noise },
        bare: null,
        rungs,
        verdicts: [],
        handHeld: false,
        believed: {},
      })!;
      const first = advise({});
      expect(first['best']).toBeCloseTo(card.best, 9);
      expect(first['spray']).toBe(adviseFirst(card).spray);
      expect(first['card90']).toEqual(card.card90);
      const readings = two.flatMap((lab, k) =>
        ['1', '2', '3'].map((spot) => ({ spot, ...five[k]!, l: lab[0], a: lab[1], b: lab[2] })),
      );
      const looks = looksOf([{ spot: 'all over', coats: 2, readings, wet: true, at: 1 }], [], card, read);
      const after = advise({ looks: [{ sprayed: 2, labs: two, spots: 3 }], looksLeft: 1 });
      expect(liveAdvice(liveState(card, 2, looks)).amount).toBe(after['spray']);
    });

    it('refuses what does not go together, by field', () => {
      const wrong = ask({
        ...base,
        target,
        rungs: [{ coats: 1, labs: [[1, 2, 3]] }],
        looks: [
          { sprayed: 2, labs: one },
          { sprayed: 1, labs: one },
        ],
      });
      expect(wrong.error!.fields).toMatchObject({
        'rungs[0].labs': 'rungs[0].labs needs one entry for every angle of the target.',
        looks: 'Looks come oldest first: sprayed never falls.',
      });
    });
  });
});
