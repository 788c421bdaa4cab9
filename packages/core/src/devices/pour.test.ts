import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { rescueOverpour } from '../mixing/batch';
import { goOnFrom, isOnScale, meantNow, nextPart, startPour, weigh, type OnScale, type ScalePart } from './pour';

const PARTS: readonly ScalePart[] = [
  { name: 'binder', grams: 120 },
  { name: 'dye', grams: 15 },
  { name: 'reducer', grams: 60 },
];
const rest = (on: OnScale, grams: number) => weigh(PARTS, on, { grams, stable: true });
const move = (on: OnScale, grams: number) => weigh(PARTS, on, { grams, stable: false });

describe('a pour', () => {
  it('is followed while it moves, kept when it rests, called at the figure', () => {
    const on = startPour(PARTS, 38.6);
    expect(move(on, 90).stands).toMatchObject({ phase: 'pour', meant: 120, mark: 120 });
    expect(move(on, 90).on).toBe(on);
    expect(move(on, 38.6 + 110).stands.phase).toBe('slow');
    const there = rest(on, 38.6 + 119.6);
    expect(there.stands.phase).toBe('there');
    expect(there.on.poured[0]).toBeCloseTo(119.6, 6);
    const next = nextPart(PARTS, there.on);
    expect(next.index).toBe(1);
    expect(move(next, 38.6 + 119.6 + 5).stands).toMatchObject({ phase: 'pour', meant: 15 });
    expect(move(next, 38.6 + 119.6 + 5).stands.mark).toBeCloseTo(134.6, 6);
  });

  it('that went over brings the others up by as much, as the rescue by volume says', () => {
    const over = rest(startPour(PARTS, 0), 132);
    expect(over.stands.phase).toBe('over');
    expect(over.stands.grown).toBeCloseTo(1.1, 6);
    expect(over.stands.allMeant[1]).toBeCloseTo(16.5, 6);
    const next = nextPart(PARTS, over.on);
    expect(move(next, 133).stands.meant).toBeCloseTo(16.5, 6);
    const byVolume = rescueOverpour(
      PARTS.map((p) => ({ name: p.name, parts: p.grams, density: 1 })),
      195,
      0,
      132,
    )!;
    expect(byVolume.parts[2]!.ml).toBeCloseTo(66, 6);
    expect(over.stands.allMeant[2]).toBeCloseTo(byVolume.parts[2]!.ml, 6);
  });

  it('of a later part that went over goes back to those before it', () => {
    let on = nextPart(PARTS, rest(startPour(PARTS, 0), 120).on);
    on = rest(on, 120 + 18).on;
    on = nextPart(PARTS, on);
    expect(PARTS[on.index]!.name).toBe('reducer');
    on = rest(on, 138 + 72).on;
    on = nextPart(PARTS, on);
    expect(PARTS[on.index]!.name).toBe('binder');
    const stands = move(on, 210).stands;
    expect(stands.meant).toBeCloseTo(144, 6);
    expect(rest(on, 210 + 24).stands.phase).toBe('done');
  });

  it('waits while the cup is lifted, and goes on where the scale was tared', () => {
    const on = rest(startPour(PARTS, 38.6), 38.6 + 80).on;
    const lifted = rest(on, 0);
    expect(lifted.stands.phase).toBe('lifted');
    expect(lifted.on).toBe(on);
    expect(lifted.stands.shown).toBeCloseTo(80, 6);
    const tared = goOnFrom(on, 0);
    expect(move(tared, 10).stands.shown).toBeCloseTo(90, 6);
  });

  it('follows a scale that creeps down, and counts nothing twice', () => {
    const on = rest(startPour(PARTS, 0), 50).on;
    const crept = rest(on, 49.8).on;
    expect(crept.poured[0]).toBeCloseTo(50, 6);
    expect(move(crept, 59.8).stands.shown).toBeCloseTo(60, 6);
    const again = rest(crept, 49.8);
    expect(again.on).toBe(crept);
  });

  it('keeps all that was poured, whatever is poured in whatever order: the sum is what the scale gained', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.boolean(), fc.double({ min: 0.02, max: 40, noNaN: true })), { maxLength: 40 }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        (steps, zero) => {
          let on = startPour(PARTS, zero);
          let shown = zero;
          for (const [advance, more] of steps) {
            shown += more;
            on = rest(on, shown).on;
            if (advance) on = nextPart(PARTS, on);
          }
          expect(on.poured.reduce((s, v) => s + v, 0)).toBeCloseTo(shown - zero, 6);
        },
      ),
    );
  });

  it('never asks for less than is in, and keeps the parts in proportion', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 400, noNaN: true }), { minLength: 3, maxLength: 3 }), (poured) => {
        const { grown, meant } = meantNow(PARTS, poured);
        expect(grown).toBeGreaterThanOrEqual(1);
        PARTS.forEach((p, i) => {
          expect(meant[i]! / p.grams).toBeCloseTo(grown, 9);
          expect(poured[i]!).toBeLessThanOrEqual(meant[i]! * 1.011 + 0.16);
        });
      }),
    );
  });
});

describe('what is kept of a cup', () => {
  it.each([
    [null],
    [{ zero: 1, poured: [1, 2], index: 0 }],
    [{ zero: 1, poured: [1, 2, -3], index: 0 }],
    [{ zero: null, poured: [1, 2, 3], index: 0 }],
    [{ zero: 1, poured: [1, 2, 3], index: 3 }],
  ])('fits only its own parts: %p does not', (kept) => expect(isOnScale(kept, 3)).toBe(false));
  it('comes back as it was', () => {
    const on = rest(startPour(PARTS, 12), 70).on;
    const back = JSON.parse(JSON.stringify(on)) as unknown;
    expect(isOnScale(back, 3)).toBe(true);
    expect(rest(back as OnScale, 70).stands.shown).toBeCloseTo(58, 6);
  });
});
