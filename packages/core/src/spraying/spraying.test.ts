import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Lab } from '../colour/lab';
import { blendProfile, fadeFactor, halosOf, steppedLayers, suggestBlend, type BlendLayer } from './blend';
import { crestAndTrough, filmFromGun, passChanges, passFilm, type PassSetup } from './passes';
import { passRipple, type FanProfile } from './ripple';

const even: PassSetup = {
  profile: 'bell',
  fanCm: 25,
  overlap: 0.5,
  coats: [1],
  shift: 0,
  cross: false,
  marginCm: 30,
  panels: [120],
  walk: true,
  heightCm: 70,
  speedSd: 0,
  distanceSd: 0,
  aimSdCm: 0,
  seed: 3,
};
const range = (film: Float64Array) => Math.max(...film) - Math.min(...film);
const meanOf = (film: Float64Array) => film.reduce((a, b) => a + b, 0) / film.length;

describe('passes over a panel', () => {
  it('lay a flat film where the closed form says so: cosine squared at 50 and 75 % (cos^2 a + sin^2 a = 1)', () => {
    for (const overlap of [0.5, 0.75]) {
      const { film } = passFilm({ ...even, overlap, coats: [1, 0.5] }, 40, 350);
      expect(range(film)).toBeLessThan(1e-9);
      expect(meanOf(film)).toBeCloseTo(1.5, 4);
    }
  });

  it('ripple as the sum over the fan says, whatever the profile and the overlap', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<FanProfile>('bell', 'elliptical', 'flat'),
        fc.double({ min: 0.05, max: 0.85, noNaN: true }),
        (profile, overlap) => {
          const pitch = 25 * (1 - overlap);
          // Twelve whole pitches high, so that every crest and trough is there as often.
          const { film } = passFilm({ ...even, profile, overlap, plateau: 0.5, heightCm: 12 * pitch }, 3, 2400);
          const wanted = passRipple(profile, overlap, 0.5).ripple;
          expect(range(film) / meanOf(film)).toBeCloseTo(wanted, 1);
          expect(meanOf(film)).toBeCloseTo(1, 2);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('double at panel edges when panels are triggered alone, and not when the side is walked', () => {
    const panels = { ...even, panels: [60, 60], marginCm: 4 };
    const alone = passFilm({ ...panels, walk: false }, 120, 10).film;
    const walked = passFilm(panels, 120, 10).film;
    // Two strokes meet over the seam: nearly twice the film; between the seam and the ends none of that.
    expect(alone[60]! / alone[30]!).toBeGreaterThan(1.9);
    expect(walked[60]!).toBeCloseTo(walked[30]!, 9);
    const short = passFilm({ ...panels, walk: false, marginCm: -4 }, 120, 10).film;
    expect(short[60]! / short[30]!).toBeLessThan(0.3);
  });

  it('keep their film on average when the hand is unsteady, and stripe more the unsteadier it is', () => {
    const ripple = (speedSd: number) => {
      const { film } = passFilm({ ...even, coats: [1, 1], speedSd, heightCm: 400 }, 2, 800);
      const { crest, trough } = crestAndTrough(film);
      return (crest - trough) / meanOf(film);
    };
    expect(ripple(0)).toBeLessThan(1e-9);
    expect(ripple(0.05)).toBeGreaterThan(0.03);
    expect(ripple(0.15)).toBeGreaterThan(ripple(0.05));
    const once = passFilm({ ...even, speedSd: 0.1 }, 4, 40);
    expect(passFilm({ ...even, speedSd: 0.1 }, 4, 40)).toEqual(once);
    expect(passFilm({ ...even, speedSd: 0.1, seed: 4 }, 4, 40)).not.toEqual(once);
  });

  it('are evened by what is advised, each cheaper advice first', () => {
    const striped: PassSetup = {
      ...even,
      profile: 'flat',
      plateau: 0.5,
      overlap: 0.3,
      coats: [1, 1, 1],
      walk: false,
      panels: [60, 60],
    };
    const changes = passChanges(striped);
    expect(changes[0]!.name).toContain('walk');
    const worst = (s: PassSetup) => range(passFilm({ ...s, marginCm: 30, heightCm: 210 }, 60, 600).film);
    const last = changes.at(-1)!;
    expect(worst(last.setup)).toBeLessThan(0.5 * worst(striped));
    // Whatever a change asks is said.
    for (const c of changes) {
      expect(c.name.includes('walk')).toBe(c.setup.walk);
      expect(c.name.includes('overlap')).toBe(c.setup.overlap > striped.overlap);
      expect(c.name.includes('cross')).toBe(c.setup.cross);
    }
    expect(passChanges({ ...even, coats: [1, 1], shift: 0.5 }).some((c) => c.name.includes('half a pass'))).toBe(false);
  });

  it('are never told to do what is done already, however they are laid', () => {
    for (const cross of [false, true])
      for (const shift of [0, 0.5])
        for (const walk of [false, true])
          for (const split of [false, true])
            for (const overlap of [0.5, 0.75]) {
              const now: PassSetup = { ...even, panels: [60, 60], coats: [1, 1], cross, shift, walk, split, overlap };
              for (const { name, setup } of passChanges(now)) {
                expect(name).not.toBe('');
                if (cross) expect(name).not.toMatch(/cross|half a pass/);
                if (shift) expect(name).not.toContain('half a pass');
                if (walk) expect(name).not.toContain('walk');
                if (!split) expect(setup.coats).toEqual(now.coats);
              }
            }
  });

  it('film from the gun: worked by hand', () => {
    // 180 ml/min x 0.22 x 0.65 = 25.74 ml solids over 45 x 60 x 25 x 0.25 = 16 875 cm2: 15.25 um.
    const film = filmFromGun({ flow: 180, volumeSolids: 0.22, transfer: 0.65, speed: 45, fan: 25, overlap: 0.75 });
    expect(film).toBeCloseTo(15.25, 2);
  });
});

describe('a blend', () => {
  const layers: BlendLayer[] = [
    { id: 'g', name: 'ground', kind: 'ground', film: 2, reachCm: 20, fadeCm: 10 },
    { id: 'e1', name: 'effect 1', kind: 'effect', film: 1, reachCm: 32, fadeCm: 10 },
    { id: 'e2', name: 'effect 2', kind: 'effect', film: 1, reachCm: 44, fadeCm: 10 },
    { id: 'c', name: 'clear', kind: 'clear', film: 1, reachCm: 90, fadeCm: 5 },
  ];
  /** A made-up finish: the repair's ground is darker, every effect coat turns it redder. */
  const look = (place: { ground: number; effect: number }): Lab[] => [
    [50 - 20 * place.ground * Math.exp(-place.effect), 10 + 3 * place.effect, 5],
    [30 - 10 * place.ground * Math.exp(-place.effect), 5 + 4 * place.effect, 2],
  ];
  const existing: Lab[] = [
    [50, 16, 5],
    [30, 13, 2],
  ];

  it('fades smoothly from whole to nothing', () => {
    expect([fadeFactor(5, 20, 10), fadeFactor(10, 20, 10), fadeFactor(15, 20, 10), fadeFactor(20, 20, 10)]).toEqual([
      1, 1, 0.5, 0,
    ]);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), fc.double({ min: 0, max: 60, noNaN: true }), (a, b) => {
        const [near, far] = a < b ? [a, b] : [b, a];
        expect(fadeFactor(near, 30, 20)).toBeGreaterThanOrEqual(fadeFactor(far, 30, 20));
      }),
    );
  });

  it('reports no halo between coats of one ground, which are one colour', () => {
    const coat = (id: string, name: string, reachCm: number): BlendLayer => ({
      ...layers[0]!,
      kind: 'ground',
      id,
      name,
      reachCm,
    });
    expect(halosOf([coat('a', 'ground', 60), coat('b', 'ground', 29)])).toEqual([]);
    expect(halosOf([coat('a', 'Gold', 60), coat('b', 'Copper', 29)])).toHaveLength(1);
  });

  it('always reports a layer that reaches past one above it, and nothing else', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 120 }), { minLength: 2, maxLength: 6 }), (reaches) => {
        const stack = reaches.map((reachCm, i): BlendLayer => ({
          ...layers[0]!,
          id: String(i),
          name: `layer ${i}`,
          reachCm,
        }));
        const meant = reaches.flatMap((r, i) => reaches.slice(i + 1).map((u, j) => [i, i + 1 + j, r - u] as const));
        expect(halosOf(stack).map((h) => [Number(h.lower.id), Number(h.upper.id), h.byCm])).toEqual(
          meant.filter(([, , by]) => by > 0),
        );
      }),
    );
    expect(halosOf(layers)).toEqual([]);
  });

  it('is followed from the repair to where nothing is left of it', () => {
    const p = blendProfile(layers, (place) => look(place), existing, 120);
    expect(p.differences[0]!.at(-1)).toBeCloseTo(p.differences[0]!.at(-2)!, 9);
    expect(p.steepest).toBeGreaterThan(1);
    expect(p.steepestAt).toBeGreaterThan(5);
    expect(p.steepestAt).toBeLessThan(60);
  });

  it('is suggested as short as keeps it unseen, or not at all', () => {
    const like: Lab[] = [
      [50, 10, 5],
      [30, 5, 2],
    ];
    const found = suggestBlend(layers, 8, 400, look, like, 3)!;
    expect(found.steepest).toBeLessThanOrEqual(3);
    expect(halosOf(found.layers)).toEqual([]);
    // A shorter one that was tried is too steep.
    const shorter = steppedLayers(layers, 8, 8, 5);
    expect(blendProfile(shorter, look, like, 400).steepest).toBeGreaterThan(3);
    expect(found.unseen).toBe(true);
    // In less length there is only a softest one; in none there is nothing.
    const softest = suggestBlend(layers, 8, found.needsCm - 1, look, like, 3)!;
    expect(softest.unseen).toBe(false);
    expect(softest.steepest).toBeGreaterThan(3);
    expect(softest.needsCm).toBeLessThan(found.needsCm);
    expect(suggestBlend(layers, 8, 10, look, like, 3)).toBeNull();
  });
});
