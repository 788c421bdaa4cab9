import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { STARTING_GUNS } from '../products/guns';
import { crestAndTrough, passFilm } from '../spraying/passes';
import { fanFilm, fanShare, type FanProfile } from '../spraying/ripple';
import { armRows, ownWay, samplesOf, type ArmSettings } from './arm';
import { createSheet, gunAt, landingRate, layAll, type GunSample, type PracticeGun } from './deposit';
import { lessonSheet, reviewCoat } from './figures';
import { firstHabit, type HabitId } from './habit';
import { lessonOf, LESSONS, widthOf } from './lessons';
import { passesOf } from './passRows';

const gun: PracticeGun = { ...STARTING_GUNS[0]!, profile: 'bell', overlap: 0.5 };
const overlap = lessonOf('overlap');
const laid = (more: Partial<ArmSettings>, lesson = overlap) =>
  samplesOf(armRows(gun, lesson, { ...ownWay(gun, lesson.marginCm), ...more }), lesson);
const review = (more: Partial<ArmSettings>, lesson = overlap) => reviewCoat(laid(more, lesson), gun, lesson);
const inside = (from: number, to: number) => fc.double({ min: from, max: to, noNaN: true });

describe('the fan', () => {
  it('has shares that are the integral of its film, for every profile', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<FanProfile>('bell', 'elliptical', 'flat'),
        inside(-0.6, 0.6),
        inside(0, 0.95),
        (profile, y, plateau) => {
          const n = 4000;
          const film = (i: number) => fanFilm(profile, (i + 0.5) / n - 0.5, plateau);
          let [below, all] = [0, 0];
          for (let i = 0; i < n; i++) {
            all += film(i);
            if ((i + 0.5) / n - 0.5 < y) below += film(i);
          }
          expect(fanShare(profile, y, plateau)).toBeCloseTo(below / all, 2);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('film from a moving gun', () => {
  it('is what left the gun and lands: flow x time x what lands, on the panel and beyond it', () => {
    const where = fc.record({ dt: inside(0.005, 0.4), x: inside(-30, 90), y: inside(-30, 70), d: inside(8, 30) });
    fc.assert(
      fc.property(fc.array(where, { minLength: 2, maxLength: 12 }), (moves) => {
        let t = 0;
        const samples = moves.map(({ dt, x, y, d }): GunSample => ({ t: (t += dt), x, y, d, on: true }));
        const small = layAll(createSheet(60, 40), gun, samples);
        // A sheet that holds all of it needs no account of what went past.
        const shifted = samples.map((s) => ({ ...s, x: s.x + 70, y: s.y + 70 }));
        const large = layAll(createSheet(200, 180), gun, shifted);
        const on = (s: typeof small) => s.film.reduce((a, b) => a + b, 0) * s.cellCm ** 2;
        let meant = 0;
        for (let i = 1; i < samples.length; i++) {
          // The distance changes along a stroke: summed finely.
          for (let k = 0; k < 50; k++) {
            const [a, b] = [samples[i - 1]!, samples[i]!];
            meant += (landingRate(gun, a.d + ((k + 0.5) / 50) * (b.d - a.d)) * (b.t - a.t)) / 50;
          }
        }
        expect(on(large) / meant).toBeCloseTo(1, 2);
        expect(large.beyond).toBeLessThan(1e-6 * meant);
        expect((on(small) + small.beyond) / meant).toBeCloseTo(1, 2);
      }),
      { numRuns: 40 },
    );
  });
  it('is flat and one coat thick at one speed and 50 % of a cosine-squared fan (cos^2 a + sin^2 a = 1)', () => {
    const { film, columns, rows } = layAll(createSheet(120, 70), gun, laid({}));
    let [least, most] = [Infinity, 0];
    for (let j = 0; j < rows; j++)
      for (let i = 20; i < columns - 20; i++) {
        least = Math.min(least, film[j * columns + i]!);
        most = Math.max(most, film[j * columns + i]!);
      }
    expect(least).toBeGreaterThan(0.995);
    expect(most).toBeLessThan(1.005);
  });
  it('lies as pictures of passes have it, for the same passes', () => {
    fc.assert(
      fc.property(inside(0.2, 0.8), inside(-4, 8), fc.boolean(), (share, marginCm, apart) => {
        const lesson = { ...lessonOf('side'), marginCm };
        const own = layAll(createSheet(120, 70), gun, laid({ overlap: share, marginCm, apart }, lesson));
        const { film } = passFilm(
          {
            ...{ profile: 'bell', fanCm: gun.fanCm, overlap: share, coats: [1], shift: 0, cross: false, marginCm },
            ...{ panels: [60, 60], walk: !apart, heightCm: 70, speedSd: 0, distanceSd: 0, aimSdCm: 0, seed: 1 },
          },
          240,
          140,
        );
        // There a set-up of any overlap lays one coat; here the gun moves as it moves.
        const scale = (1 - gun.overlap) / (1 - share);
        const [a, b] = [crestAndTrough(own.film), crestAndTrough(film)];
        expect(a.crest / scale).toBeCloseTo(b.crest, 1);
        expect(a.trough / scale).toBeCloseTo(b.trough, 1);
        const far = own.film.reduce((m, v, i) => Math.max(m, Math.abs(v / scale - film[i]!)), 0);
        expect(far).toBeLessThan(0.06);
      }),
      { numRuns: 25 },
    );
  });
  it('knows where the gun was at a time', () => {
    const samples = laid({});
    expect(gunAt(samples, -1)).toEqual(samples[0]);
    const [a, b] = samples;
    expect(gunAt(samples, (a!.t + b!.t) / 2)!.x).toBeCloseTo((a!.x + b!.x) / 2, 9);
    expect(gunAt(samples, 1e6)!.on).toBe(false);
    expect(gunAt([], 0)).toBeNull();
  });
});

describe('passes as they were moved', () => {
  it('are found again, with their lines, triggers and speeds', () => {
    const rows = passesOf(laid({ marginCm: 7, endSpeed: 0.6 }), 120);
    const meant = armRows(gun, overlap, { ...ownWay(gun, 7), endSpeed: 0.6 });
    expect(rows).toHaveLength(meant.length);
    rows.forEach((r, i) => {
      expect(r.y).toBeCloseTo(meant[i]!.y, 6);
      expect(r.from).toBeCloseTo(meant[i]!.from, 6);
      expect(r.speed).toBeCloseTo(gun.speedCmS, 3);
      expect(r.ends[0]! / r.speed).toBeCloseTo(0.6, 3);
      expect(r.held).toEqual([false, false]);
    });
  });
  it('are cut where the hand turns with the trigger on, and a dab is none', () => {
    const turned = laid({}).map((s, i, all) => ({ ...s, on: i < all.length - 1 }));
    const rows = passesOf(turned, 120);
    expect(rows.length).toBe(armRows(gun, overlap, ownWay(gun, 5)).length);
    expect(rows.slice(1, -1).every((r) => r.held[0] && r.held[1])).toBe(true);
    expect(
      passesOf(
        [
          { t: 0, x: 30, y: 20, d: 15, on: true },
          { t: 1, x: 36, y: 20, d: 15, on: false },
        ],
        120,
      ),
    ).toEqual([]);
  });
});

describe('what a coat scores', () => {
  const aim = [1, -0.6, 0.4, -1, 0.8, -0.3, -0.7, 0.9];
  // Each fault alone, from none to a lot; the lesson is that in which it is one.
  const FAULTS: readonly (readonly [string, (size: number) => Partial<ArmSettings>, (typeof LESSONS)[number]])[] = [
    ['overlap too little', (s) => ({ overlap: 0.5 - 0.4 * s }), overlap],
    ['slow at the ends', (s) => ({ endSpeed: 1 - 0.8 * s }), overlap],
    ['trigger late', (s) => ({ marginCm: 5 - 20 * s }), overlap],
    ['lines uneven', (s) => ({ aimCm: aim.map((v) => 6 * v * s) }), overlap],
    ['speeds uneven', (s) => ({ speedLn: aim.map((v) => 0.5 * v * s) }), overlap],
    ['too fast', (s) => ({ speedCmS: gun.speedCmS * (1 + 2 * s) }), overlap],
    ['too slow', (s) => ({ speedCmS: gun.speedCmS * (1 - 0.7 * s) }), overlap],
    ['too far', (s) => ({ distanceCm: gun.distanceCm * (1 + s), overlap: 1 - 0.5 / (1 + s) }), overlap],
  ];
  it.each(FAULTS)('is the less, the more of one fault alone there is: %s', (_, settings, lesson) => {
    fc.assert(
      fc.property(inside(0, 1), inside(0, 1), (a, b) => {
        const [less, more] = [Math.min(a, b), Math.max(a, b)].map((s) => review(settings(s), lesson).points);
        expect(more!).toBeLessThanOrEqual(less! + 1);
      }),
      { numRuns: 25 },
    );
    expect(review(settings(0), lesson).points).toBeGreaterThan(review(settings(1), lesson).points + 5);
  });
  it('is 100, nearly, for an arm that lays every lesson as it is meant, and then the goal is met', () => {
    for (const lesson of LESSONS) {
      const good = review({}, lesson);
      expect(good.points).toBeGreaterThan(85);
      expect(lesson.passed(good.figures)).toBe(true);
      expect(firstHabit(good, gun, lesson)).toBeNull();
    }
  });
  it('is low for a panel that was hardly touched', () => {
    const short = laid({}).slice(0, 3);
    expect(reviewCoat(short, gun, overlap).points).toBeLessThan(20);
    expect(reviewCoat([], gun, overlap)).toMatchObject({ rows: [], hand: null });
    expect(firstHabit(reviewCoat([], gun, overlap), gun, overlap)).toBeNull();
  });
});

describe('the one habit to change first', () => {
  const PLANTED: readonly (readonly [HabitId, Partial<ArmSettings>, (typeof LESSONS)[number]])[] = [
    ['overlap', { overlap: 0.15 }, overlap],
    ['ends', { endSpeed: 0.35 }, overlap],
    ['trigger', { marginCm: -12 }, overlap],
    ['walk', { apart: true }, lessonOf('side')],
    ['steady', { speedLn: [0.5, -0.4, 0.3, -0.6, 0.4] }, overlap],
    ['speed', { speedCmS: 100 }, overlap],
    ['distance', { distanceCm: 34, overlap: 1 - (0.5 * 15) / 34 }, overlap],
    ['trigger', { marginCm: 12 }, lessonOf('edges')],
  ];
  it.each(PLANTED)('is what was planted: %s', (id, settings, lesson) => {
    const habit = firstHabit(review(settings, lesson), gun, lesson);
    expect(habit?.id).toBe(id);
    expect(habit!.takesAway).toBeGreaterThan(0.3);
  });
  it('of two is the worse one', () => {
    const both = (endSpeed: number, share: number) =>
      firstHabit(review({ endSpeed, overlap: share }), gun, overlap)!.id;
    expect(both(0.3, 0.45)).toBe('ends');
    expect(both(0.9, 0.1)).toBe('overlap');
  });
});

describe('a hand for pictures of passes', () => {
  it('has the overlap it was moved with, and the scatter', () => {
    const { hand } = review({ overlap: 0.4, speedLn: [0.2, -0.2], aimCm: [1, -1] });
    expect(hand!.overlap).toBeCloseTo(0.4, 1);
    expect(hand!.speedSd).toBeCloseTo(0.2, 1);
    expect(hand!.aimSdCm).toBeGreaterThan(1);
    expect(review({}).hand).toMatchObject({ distanceSd: 0 });
  });
  it('cut-in edges lie there before the coat', () => {
    const sheet = lessonSheet(lessonOf('edges'));
    expect(sheet.film[0]!).toBeGreaterThan(0.4);
    expect(sheet.film[Math.round(widthOf(overlap) / 2 / sheet.cellCm)]).toBe(0);
  });
});
