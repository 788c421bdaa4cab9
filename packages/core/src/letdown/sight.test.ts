import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Lab } from '../colour/lab';
import { FAMILIES, FAMILY_IDS } from '../finishes/families';
import { cellAt, cellTable, differenceFrom, geometriesOf, HUE_AXIS, NODES, seenBetween } from './eyeSight';
import {
  EYE_VIEWS,
  EYE_WORDS,
  HUE_WORDS,
  isPeelWord,
  missingViews,
  PEEL_WORDS,
  sayFrom,
  USUAL_CUTS,
  VERDICTS,
  viewsOf,
} from './eyeWords';
import { linesAt, noiseAt, noiseOf, noiseOfSpots, type RungReading } from './readings';

const FIVE = [15, 25, 45, 75, 110];
const lab: fc.Arbitrary<Lab> = fc.tuple(
  fc.double({ min: 10, max: 90, noNaN: true }),
  fc.double({ min: -40, max: 40, noNaN: true }),
  fc.double({ min: -40, max: 40, noNaN: true }),
);
const alike = (l: Lab): Lab[] => FIVE.map(() => l);

describe('places to stand', () => {
  it('are each said in their own words, and of each family some', () => {
    expect(new Set(EYE_VIEWS.map(sayFrom)).size).toBe(EYE_VIEWS.length);
    for (const f of FAMILY_IDS) {
      expect(viewsOf(f)).toEqual(expect.arrayContaining(['sun face', 'sun flop', 'shade', 'lamp']));
      // Nobody judges a card in the light of where it is handed over.
      expect(viewsOf(f)).not.toContain('shop light');
      expect(viewsOf(f).includes('low light')).toBe(FAMILIES[f].lowLight);
    }
  });

  it('have all to be seen from before a finish matches; a lamp stands for the face', () => {
    for (const f of FAMILY_IDS) {
      const all = ['at the face', 'in the flop', ...(FAMILIES[f].lowLight ? ['in low light'] : [])];
      expect(missingViews(f, [])).toEqual(all);
      expect(missingViews(f, viewsOf(f))).toEqual([]);
      expect(missingViews(f, ['lamp', 'sun flop', 'low light'])).toEqual([]);
      expect(missingViews(f, ['shade'])).toEqual(all);
    }
  });

  it('stand for the angles nearest to theirs, whatever the instrument reads', () => {
    expect(geometriesOf('sun face', FIVE)).toEqual([0, 1]);
    expect(geometriesOf('sun flop', FIVE)).toEqual([3, 4]);
    expect(geometriesOf('shade', FIVE)).toEqual([2]);
    for (const view of EYE_VIEWS) expect(geometriesOf(view, [45])).toEqual([0]);
    expect(geometriesOf('sun flop', [15, 45, 80])).toEqual([2]);
  });
});

describe('words beside a verdict', () => {
  it('are hues, what families look for, and peel; each once', () => {
    expect(new Set(EYE_WORDS).size).toBe(EYE_WORDS.length);
    for (const word of [...HUE_WORDS, ...PEEL_WORDS]) expect(EYE_WORDS).toContain(word);
    expect(PEEL_WORDS.every(isPeelWord)).toBe(true);
    expect([null, undefined, '', ...HUE_WORDS].some(isPeelWord)).toBe(false);
    for (const hue of HUE_WORDS) expect(HUE_AXIS[hue]).toBeDefined();
  });

  it('opposite hues are opposite', () => {
    const seen = { de: 2, lighter: 0.5, a: 1.5, b: -0.5 };
    expect(HUE_AXIS['redder']!(seen)).toBe(-HUE_AXIS['greener']!(seen));
    expect(HUE_AXIS['yellower']!(seen)).toBe(-HUE_AXIS['bluer']!(seen));
  });
});

describe('what an eye sees of a difference', () => {
  it('is none between equals, as much either way round, and lighter as surely as the other is darker', () => {
    fc.assert(
      fc.property(lab, lab, (a, b) => {
        const geometries = [0, 1];
        expect(seenBetween(alike(a), alike(a), geometries)).toMatchObject({ de: 0, lighter: expect.closeTo(0.5, 6) });
        const there = seenBetween(alike(a), alike(b), geometries);
        const back = seenBetween(alike(b), alike(a), geometries);
        expect(there.de).toBeCloseTo(back.de, 6);
        expect(there.lighter + back.lighter).toBeCloseTo(1, 6);
        expect(there.a).toBeCloseTo(-back.a, 9);
        expect(differenceFrom('shade', FIVE, alike(a), alike(b))).toBeCloseTo(there.de, 9);
      }),
    );
  });

  it('some verdict is given of every difference, and of a larger one no milder one', () => {
    for (const sd of [0.6, 1.2]) {
      const tables = VERDICTS.map((v) => cellTable(v, sd, USUAL_CUTS));
      let last = 0;
      for (let signed = -10; signed <= 10; signed += 0.5) {
        const chances = tables.map((t) => cellAt(t, signed));
        expect(chances.reduce((s, c) => s + c, 0)).toBeCloseTo(1, 6);
        // The verdict on the mean, lightest first: it moves to darker and never back.
        const mean = chances.reduce((s, c, k) => s + k * c, 0);
        expect(mean).toBeGreaterThanOrEqual(last - 1e-9);
        last = mean;
      }
      expect(cellAt(tables[2]!, 0)).toBeGreaterThan(cellAt(tables[2]!, 2));
      expect(cellAt(tables[0]!, -50)).toBe(cellAt(tables[0]!, -14));
    }
  });

  it('is the other way round for darker as for lighter', () => {
    const [much, little] = [cellTable('much lighter', 0.8, USUAL_CUTS), cellTable('much darker', 0.8, USUAL_CUTS)];
    for (let signed = -8; signed <= 8; signed += 0.4)
      expect(cellAt(much, signed)).toBeCloseTo(cellAt(little, -signed), 6);
  });

  // Abramowitz and Stegun, table 25.10, for a standard normal.
  it('five nodes give its moments up to the ninth', () => {
    const moment = (n: number) => NODES.reduce((s, [x, w]) => s + w * x ** n, 0);
    [1, 0, 1, 0, 3, 0, 15, 0, 105].forEach((m, n) => expect(moment(n) / Math.max(1, m)).toBeCloseTo(m ? 1 : 0, 4));
  });
});

describe('scatter of readings', () => {
  it('of repeated spots is their pooled standard deviation, and unknown of single ones', () => {
    expect(noiseOfSpots([[[[50, 0, 0]], [[52, 0, 0]]]])).toBeCloseTo(Math.sqrt(2 / 3), 12);
    expect(noiseOfSpots([[[[50, 0, 0]]], [[[60, 1, 1]]]])).toBeNull();
    expect(noiseOfSpots([])).toBeNull();
    // An angle that was not read at a spot says nothing.
    expect(
      noiseOfSpots([
        [
          [[50, 0, 0], null],
          [
            [52, 0, 0],
            [40, 0, 0],
          ],
        ],
      ]),
    ).toBeCloseTo(Math.sqrt(2 / 3), 12);
  });

  it('is recovered from spots that scatter by it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 3, noNaN: true }), lab, (sd, [l, a, b]) => {
        // Two spots at plus and minus half a root two of it, on every axis.
        const off = sd / Math.SQRT2;
        const spots = [1, -1].map((s) => [[l + s * off, a + s * off, b + s * off] as Lab]);
        expect(noiseOfSpots([spots])).toBeCloseTo(sd, 9);
      }),
    );
  });

  it('is the usual one where nothing is known, more of it at bright angles; by geometry it is taken as it is', () => {
    const unknown = noiseOf(null, [20, 90]);
    expect(noiseAt(unknown, 0, 90)).toBeGreaterThan(noiseAt(unknown, 0, 20));
    expect(noiseAt(noiseOf([0.2, 0.7], []), 1, 90)).toBe(0.7);
    const measured = noiseOf(1, [50, 50]);
    // One figure is drawn half way to the usual ones.
    const at = noiseAt(measured, 0, 50);
    expect(at).toBeCloseTo((1 + measured.usual) / 2, 9);
    expect(noiseAt(noiseOf(2, [50, 50]), 0, 50)).toBeGreaterThan(at);
  });
});

describe('lines between rungs', () => {
  const rows: RungReading[] = [1, 2, 4].map((coats) => ({ coats, labs: [[80 - 10 * coats, coats, 0]] }));

  it('go through them, straight between them, and on beyond the last and before the first', () => {
    for (const { coats, labs } of rows) expect(linesAt(rows, coats)).toEqual(labs);
    expect(linesAt(rows, 3)[0]).toEqual([50, 3, 0]);
    expect(linesAt(rows, 5)[0]).toEqual([30, 5, 0]);
    expect(linesAt(rows, 0.5)[0]![0]).toBeCloseTo(75, 12);
  });
});
