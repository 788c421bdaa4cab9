import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { filmOfSettings } from '../spraying/gunFilm';
import { STARTING_GUNS } from '../products/guns';
import { layersOf, stackFilmUm } from '../finishes/layers';
import { findGround } from '../materials/grounds';
import { findMix } from '../materials/mixes';
import { cupOf } from '../products/productOf';
import { STARTING_PRODUCTS } from '../products/products';
import { createRandom } from '../numeric/random';
import { REFERENCE_LIBRARY } from '../materials/shop';
import { bestOrder, orderCost, worstOverspray, type BoothAir, type BoothArea } from './order';
import { coatPlan, type CoatPlanInput } from '../spraying/coatPlan';
import { dewPoint, flashMinutes } from '../spraying/flash';
import { planTimeline, type TimeTask } from './timeline';

describe('flash and dew point', () => {
  it('take twice as long per 10 C colder (common practice, no source)', () => {
    const at = (temperature: number) => flashMinutes({ minutesAt20: 10, temperature, film: 1, chemistry: 'solvent' });
    expect([at(0), at(10), at(20), at(30)]).toEqual([40, 20, 10, 5]);
  });
  // ISO 8502-4, table of dew points, values to 0.1 C as reprinted by instrument handbooks; from memory.
  it.each([
    [20, 0.5, 9.3],
    [20, 0.8, 16.4],
    [10, 0.6, 2.6],
    [30, 0.7, 23.9],
  ])('at %p C and %p the dew point is %p C', (t, h, dew) => expect(dewPoint(t, h)).toBeCloseTo(dew, 0.9));
});

const air: BoothAir = { towards: 0, openMinutes: 8, minutesPerM2: 2 };
const pieces = (n: number, seed: number): BoothArea[] => {
  const random = createRandom(seed);
  return Array.from({ length: n }, (_, i) => ({
    id: String(i),
    name: `piece ${i}`,
    x: random() * 5,
    y: random() * 3,
    areaM2: 0.5 + random() * 3,
    first: random() < 0.2,
  }));
};
function* permutations<T>(list: readonly T[]): Generator<T[]> {
  if (!list.length) yield [];
  for (const [i, x] of list.entries())
    for (const rest of permutations([...list.slice(0, i), ...list.slice(i + 1)])) yield [x, ...rest];
}

describe('the order in the booth', () => {
  it('is the best there is (brute force over all orders)', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const list = pieces(6, seed);
      const wind = { ...air, towards: seed * 47 };
      let least = Infinity;
      for (const order of permutations(list)) {
        const jambs = order.map((p) => p.first);
        if (jambs.lastIndexOf(true) > jambs.indexOf(false) && jambs.includes(false) && jambs.includes(true)) continue;
        least = Math.min(least, orderCost(order, wind));
      }
      const found = bestOrder(list, wind);
      expect(orderCost(found, wind)).toBeCloseTo(least, 9);
      const firsts = found.map((p) => p.first);
      expect(firsts.slice(0, firsts.filter(Boolean).length).every(Boolean)).toBe(true);
    }
  });
  it('for many pieces is no worse than down the air, and names the pair that suffers', () => {
    const list = pieces(16, 5);
    const plain = [...list].sort((a, b) => Number(b.first) - Number(a.first) || a.x - b.x);
    expect(orderCost(bestOrder(list, air), air)).toBeLessThanOrEqual(orderCost(plain, air));
    const up: BoothArea = { id: 'u', name: 'up', x: 0, y: 0, areaM2: 4, first: false };
    const down = { ...up, id: 'd', name: 'down', x: 1 };
    expect(bestOrder([down, { ...up, areaM2: 6 }, { ...down, id: 'e', x: 2, areaM2: 6 }], air)[0]!.id).toBe('u');
    const far = { ...up, id: 'm', x: 0.5, areaM2: 8 };
    expect(worstOverspray([down, far, up], air)).toMatchObject({ from: { id: 'm' }, onto: { id: 'd' } });
    expect(worstOverspray([up], air)).toBeNull();
  });
});

describe('the coats of a plan', () => {
  const layers = layersOf(findGround('silver-fine'), findMix('cinder-candy'), {
    groundId: 'silver-fine',
    coats: 2.5,
    strength: 1,
    style: 'wet',
    controlCoats: 1,
  });
  const kinds = {
    primer: 'primer',
    sealer: 'sealer',
    ground: 'ground',
    effect: 'intercoat',
    lock: 'intercoat',
    clear: 'clear',
  };
  const input = (more: Partial<CoatPlanInput> = {}): CoatPlanInput => ({
    layers,
    library: REFERENCE_LIBRARY,
    productOf: (l) => STARTING_PRODUCTS.find((p) => p.kind === kinds[l.kind]) ?? null,
    cupOf: (l) => cupOf(l, layers),
    paceOf: () => 1,
    gun: STARTING_GUNS[0]!,
    school: 'wet',
    grip: false,
    tack: true,
    edits: {},
    ...more,
  });
  it('lay the film of the stack in either school, the effect walked, the control coat from twice as far', () => {
    for (const school of ['wet', 'mist'] as const) {
      const plan = coatPlan(input({ school, grip: true }));
      const film = plan.filter((c) => c.counted).reduce((s, c) => s + c.filmUm, 0);
      expect(film).toBeCloseTo(stackFilmUm(layers), 9);
      expect(plan.filter((c) => c.kind === 'effect').every((c) => c.walk)).toBe(true);
      expect(new Set(plan.map((c) => c.id)).size).toBe(plan.length);
      expect(plan.filter((c) => !c.counted).map((c) => c.style)).toEqual(['grip', 'tack']);
    }
    const wet = coatPlan(input()).filter((c) => c.kind === 'effect');
    expect(wet.map((c) => c.style)).toEqual(['wet', 'wet', 'half', 'control']);
    expect(wet[3]!.distanceCm).toBe(2 * wet[0]!.distanceCm);
    expect(coatPlan(input({ school: 'mist' })).filter((c) => c.style === 'light')).toHaveLength(6);
    expect(coatPlan(input()).find((c) => c.kind === 'clear')!.caution).toContain('Isocyanates');
  });
  it('have settings that lay their film: half, light, grip and control coats too, with every gun', () => {
    for (const gun of STARTING_GUNS.slice(0, 2))
      for (const school of ['wet', 'mist'] as const)
        for (const coat of coatPlan(input({ gun, school, grip: true })))
          expect(Math.abs(filmOfSettings(gun, coat, coat.volumeSolids) / coat.filmUm - 1)).toBeLessThan(0.1);
    // A half coat is one: at the same needle and distance twice as fast, or less fluid.
    const wet = coatPlan(input()).filter((c) => c.kind === 'effect');
    const lays = (c: (typeof wet)[number]) => filmOfSettings(STARTING_GUNS[0]!, c, c.volumeSolids);
    expect(lays(wet[2]!) / lays(wet[0]!)).toBeCloseTo(0.5, 1);
    expect(lays(wet[3]!) / lays(wet[0]!)).toBeCloseTo(0.35, 1);
  });
  it('keep what the painter changed', () => {
    const id = coatPlan(input()).find((c) => c.kind === 'effect')!.id;
    const edited = coatPlan(input({ edits: { [id]: { overlap: 0.6, distanceCm: 18 } } })).find((c) => c.id === id)!;
    expect(edited).toMatchObject({ overlap: 0.6, distanceCm: 18, pressureBar: 1.4 });
  });
});

describe('the timeline', () => {
  const arbitrary = fc
    .record({
      pieces: fc.integer({ min: 1, max: 4 }),
      coats: fc.array(
        fc.record({
          minutes: fc.integer({ min: 1, max: 15 }),
          flash: fc.integer({ min: 0, max: 40 }),
          recoat: fc.option(fc.integer({ min: 5, max: 200 }), { nil: null }),
          batch: fc.constantFrom('a', 'b', null),
        }),
        { minLength: 1, maxLength: 6 },
      ),
      pot: fc.option(fc.integer({ min: 20, max: 120 }), { nil: null }),
      now: fc.integer({ min: 0, max: 500 }),
      doneCount: fc.integer({ min: 0, max: 3 }),
    })
    .map((r) => {
      const tasks: TimeTask[] = [];
      r.coats.forEach((c, k) => {
        for (let p = 0; p < r.pieces; p++) {
          const before = r.coats[k - 1];
          tasks.push({
            id: `${k}|${p}`,
            coatId: String(k),
            areaId: String(p),
            minutes: c.minutes,
            painter: true,
            batch: c.batch,
            after: before
              ? [
                  {
                    id: `${k - 1}|${p}`,
                    min: before.flash,
                    max: before.recoat === null ? null : before.flash + before.recoat,
                  },
                ]
              : [],
          });
        }
      });
      const done = new Map(tasks.slice(0, Math.min(r.doneCount, r.pieces)).map((t, i) => [t.id, i * 10]));
      return { ...r, tasks, done };
    });

  it('never lets a wait be too short, two things at once, or a window close unsaid', () => {
    fc.assert(
      fc.property(arbitrary, ({ tasks, pot, now, done }) => {
        const batches = ['a', 'b'].map((id) => ({ id, name: `cup ${id}`, mixMinutes: 4, potMinutes: pot }));
        const plan = planTimeline({ tasks, batches, now, done, mixed: new Map() });
        const of = new Map(plan.tasks.map((t) => [t.id, t]));
        expect(plan.tasks.filter((t) => t.kind === 'task')).toHaveLength(tasks.length);
        for (const t of tasks) {
          const p = of.get(t.id)!;
          if (p.done) continue;
          expect(p.start).toBeGreaterThanOrEqual(now);
          for (const a of t.after) {
            const before = of.get(a.id)!;
            expect(p.start).toBeGreaterThanOrEqual(before.end + a.min - 1e-9);
            const late = a.max !== null && p.start > before.end + a.max + 1e-9;
            expect(plan.conflicts.some((c) => c.kind === 'recoat' && c.task === t.id)).toBe(late);
          }
          if (t.batch && pot !== null) {
            const mixes = plan.tasks.filter((m) => m.batch?.id === t.batch && m.end <= p.start + 1e-9);
            expect(mixes.length).toBeGreaterThan(0);
            const kept = p.end <= Math.max(...mixes.map((m) => m.end)) + pot + 1e-9;
            expect(plan.conflicts.some((c) => c.kind === 'pot life' && c.task === t.id)).toBe(!kept);
          }
        }
        const busy = plan.tasks.filter((t) => !t.done).sort((a, b) => a.start - b.start || a.end - b.end);
        busy.slice(1).forEach((t, i) => expect(t.start).toBeGreaterThanOrEqual(busy[i]!.end - 1e-9));
      }),
    );
  });
});
