import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { STARTING_GUNS } from '../products/guns';
import { armRows, linesOver, ownWay, samplesEvery, samplesOf, spansOf } from './arm';
import { createSheet, gunAt, landingRate, laySegment, union, type PracticeGun } from './deposit';
import { faultOf } from './figures';
import { passesOf, speedAlong } from './passRows';

const gun: PracticeGun = { ...STARTING_GUNS[0]!, profile: 'bell', overlap: 0.5 };
const side = { panels: [60, 80], heightCm: 70 };
const arm = ownWay(gun, 15);

describe('an arm', () => {
  it('goes over all panels in one walk, or over each by itself', () => {
    expect(spansOf([60, 80], false)).toEqual([[0, 140]]);
    expect(spansOf([60, 80], true)).toEqual([
      [0, 60],
      [60, 140],
    ]);
  });

  it('lays lines that touch the panel, one pitch apart, the first and last half over its edges', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 120, noNaN: true }),
        fc.double({ min: 5, max: 40, noNaN: true }),
        fc.double({ min: 0.3, max: 0.95, noNaN: true }),
        (height, fan, share) => {
          const pitch = fan * share;
          const lines = linesOver(height, fan, pitch);
          for (const y of lines) {
            expect(y + fan / 2).toBeGreaterThan(0);
            expect(y - fan / 2).toBeLessThan(height);
          }
          lines.slice(1).forEach((y, i) => expect(y - lines[i]!).toBeCloseTo(pitch, 9));
          expect(lines[0]!).toBeLessThan(pitch);
          expect(lines.at(-1)!).toBeGreaterThan(height - pitch);
        },
      ),
    );
  });

  it('goes to and fro, beyond the edges by its margin, at its own speed', () => {
    const rows = armRows(gun, side, arm);
    rows.forEach((r, k) => {
      expect([r.from, r.to]).toEqual(k % 2 ? [155, -15] : [-15, 155]);
      expect(r.speed).toBe(gun.speedCmS);
    });
    expect(armRows(gun, side, { ...arm, apart: true })).toHaveLength(2 * rows.length);
  });

  it('is found again in what it does: as many passes, where and as fast as they were', () => {
    const rows = armRows(gun, side, { ...arm, speedLn: [0.1, -0.1], aimCm: [1, 0, -1] });
    const found = passesOf(samplesOf(rows, side), 140);
    expect(found).toHaveLength(rows.length);
    found.forEach((p, k) => {
      expect(p.y).toBeCloseTo(rows[k]!.y, 6);
      expect(p.speed).toBeCloseTo(rows[k]!.speed, 6);
      expect(Math.sign(p.to - p.from)).toBe(Math.sign(rows[k]!.to - rows[k]!.from));
    });
  });

  it('that slows at the ends is slower there, and nowhere else', () => {
    const speeds = speedAlong(samplesOf(armRows(gun, side, { ...arm, endSpeed: 0.5 }), side), 140, 14);
    expect(speeds[0]!).toBeCloseTo(gun.speedCmS / 2, 0);
    expect(speeds[13]!).toBeCloseTo(gun.speedCmS / 2, 0);
    expect(speeds[7]!).toBeCloseTo(gun.speedCmS, 6);
    expect(speedAlong([], 140, 3)).toEqual([null, null, null]);
  });

  it('is shown in its own time by more samples of the same way', () => {
    const samples = samplesOf(armRows(gun, side, arm), side);
    const often = samplesEvery(samples, 0.05);
    often.slice(1).forEach((s, i) => expect(s.t - often[i]!.t).toBeLessThanOrEqual(0.0501));
    for (const t of [0.3, 1.7, 4.2]) {
      const [a, b] = [gunAt(samples, t)!, gunAt(often, t)!];
      expect([b.x, b.y, b.on]).toEqual([expect.closeTo(a.x, 6), expect.closeTo(a.y, 6), a.on]);
    }
  });
});

describe('what lands', () => {
  it('at the gun’s own distance lays a coat at its own speed; further away less lands', () => {
    expect(landingRate(gun, gun.distanceCm)).toBeCloseTo(gun.speedCmS * gun.fanCm * 0.5, 9);
    expect(landingRate(gun, 25)).toBeLessThan(landingRate(gun, 15));
    expect(landingRate(gun, 10)).toBeGreaterThan(landingRate(gun, 15));
  });

  it('is on the panel or beyond it, whichever way the gun goes: nothing is lost', () => {
    const place = fc.double({ min: -30, max: 130, noNaN: true });
    fc.assert(
      fc.property(place, place, place, place, fc.double({ min: 10, max: 30, noNaN: true }), (x, y, toX, toY, d) => {
        const sheet = createSheet(100, 60, 1);
        const at = (t: number, px: number, py: number) => ({ t, x: px, y: py, d, on: true });
        const patch = laySegment(sheet, gun, at(0, x, y), at(0.5, toX, toY));
        const on = sheet.film.reduce((s, v) => s + v, 0) * sheet.cellCm ** 2;
        expect(on + sheet.beyond).toBeCloseTo(landingRate(gun, d) * 0.5, 4);
        if (patch === null) expect(on).toBe(0);
        // Nothing changed outside of what is said to have.
        const stray = sheet.film.filter((v, i) => {
          const [row, column] = [Math.floor(i / sheet.columns), i % sheet.columns];
          return (
            v !== 0 &&
            patch &&
            !(row >= patch.top && row < patch.bottom && column >= patch.left && column < patch.right)
          );
        });
        expect([...stray]).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it('two patches are one that holds both', () => {
    const a = { left: 2, top: 3, right: 5, bottom: 9 };
    expect(union(a, { left: 0, top: 4, right: 4, bottom: 12 })).toEqual({ left: 0, top: 3, right: 5, bottom: 12 });
    expect(union(a, a)).toEqual(a);
  });
});

describe('how far a coat is from an even one', () => {
  const even = { film: 1, across: 0, edges: [1, 1], gap: 1, beyond: 0.1, passes: 8 } as const;

  it('is nothing for an even one, and grows with each thing that is off, either way', () => {
    expect(faultOf(even)).toBe(0);
    for (const off of [
      { across: 0.2 },
      { edges: [0.7, 1] as const },
      { edges: [1, 1.3] as const },
      { gap: 1.4 },
      { gap: 0.6 },
      { film: 0.7 },
      { film: 1.5 },
    ])
      expect(faultOf({ ...even, ...off })).toBeGreaterThan(0);
    // Without a break nothing is said of one; a bare panel is as far off as can be said.
    expect(faultOf({ ...even, gap: null })).toBe(0);
    expect(Number.isFinite(faultOf({ ...even, film: 0 }))).toBe(true);
  });
});
