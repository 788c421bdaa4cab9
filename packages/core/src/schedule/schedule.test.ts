import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { filmOfSettings } from '../application/gunFilm';
import { STARTING_GUNS } from '../application/guns';
import { layersOf, stackFilmUm, startingLayers, type StackLayer } from '../layers';
import { findGround } from '../materials/grounds';
import { findSystem } from '../materials/systems';
import { STARTING_PRODUCTS } from '../mixing/products';
import { createRandom } from '../random';
import { REFERENCE_LIBRARY } from '../shop';
import { bestOrder, orderCost, worstOverspray, type BoothAir, type BoothPiece } from './boothOrder';
import { foldRun, taskKey, type BoothEvent, type BoothTask } from './boothRun';
import { coatPlan, type CoatPlanInput } from './coatPlan';
import { dewPoint, flashMinutes } from './flash';
import { BEFORE_CLEAR, cupOf, planJob, type JobPlanInput } from './jobPlan';
import { keptGaps, planTimeline, type TimeTask } from './timeline';

/** Ids one after the other. */
const nextId = () => {
  let n = 0;
  return () => `l${n++}`;
};

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
const pieces = (n: number, seed: number): BoothPiece[] => {
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
    const up: BoothPiece = { id: 'u', name: 'up', x: 0, y: 0, areaM2: 4, first: false };
    const down = { ...up, id: 'd', name: 'down', x: 1 };
    expect(bestOrder([down, { ...up, areaM2: 6 }, { ...down, id: 'e', x: 2, areaM2: 6 }], air)[0]!.id).toBe('u');
    const far = { ...up, id: 'm', x: 0.5, areaM2: 8 };
    expect(worstOverspray([down, far, up], air)).toMatchObject({ from: { id: 'm' }, onto: { id: 'd' } });
    expect(worstOverspray([up], air)).toBeNull();
  });
});

describe('the coats of a plan', () => {
  const layers = layersOf(findGround('silver-fine'), findSystem('cinder-candy'), {
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

describe('the plan of a job', () => {
  const layers = layersOf(findGround('silver-fine'), findSystem('cinder-candy'), {
    groundId: 'silver-fine',
    coats: 2,
    strength: 1,
    style: 'wet',
    controlCoats: 1,
  });
  const slow = {
    ...STARTING_PRODUCTS.find((p) => p.kind === 'intercoat')!,
    id: 'slow',
    name: 'slow',
    flashMinutes: 30,
  };
  const SETTINGS: JobPlanInput['settings'] = {
    school: 'wet',
    grip: false,
    tack: true,
    blown: false,
    bake: true,
    airTowards: 0,
    order: null,
    edits: {},
  };
  /** One tub, sprayed as most are, but for what is said. */
  const tub = (more: Partial<JobPlanInput> = {}) =>
    planJob({
      layers,
      library: REFERENCE_LIBRARY,
      products: STARTING_PRODUCTS,
      named: {},
      gun: STARTING_GUNS[0]!,
      pieces: [{ id: 'tub', name: 'tub', x: 0, y: 0, areaM2: 2, first: false }],
      temperatureC: 20,
      humidity: 0.5,
      settings: SETTINGS,
      ...more,
    });
  const plan = (named: Record<string, string>, temperatureC = 20) =>
    tub({ products: [...STARTING_PRODUCTS, slow], named, temperatureC });
  it('lets the booth wait as long as the timeline does, longer before clear', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 38, noNaN: true }), (temperature) => {
        const { coats, runs, tasks } = plan({}, temperature);
        for (const [k, run] of runs.slice(0, -1).entries()) {
          expect(run.waitMinutes).toBe(tasks[k + 1]!.after[0]!.min);
          if (coats[k]!.kind === 'effect' && coats[k + 1]!.kind === 'clear')
            expect(run.waitMinutes).toBeGreaterThanOrEqual(20);
        }
      }),
    );
  });
  const clearOver = (materials: readonly StackLayer[], settings: object = {}, temperatureC = 30) =>
    tub({ layers: materials, temperatureC, settings: { ...SETTINGS, ...settings } });
  const bare = startingLayers('bare', findSystem('cinder-candy'), nextId());
  it('waits 20 min and more before any two-pack clear over solvent base, an effect below it or not, tinted or not', () => {
    const plain = clearOver(bare);
    const last = plain.coats.findLastIndex((c) => c.kind === 'ground');
    expect(plain.flashes[last]).toBeLessThan(BEFORE_CLEAR);
    expect(plain.waits[last]).toBe(BEFORE_CLEAR);
    const tinted = clearOver(
      layersOf(findGround('gold'), findSystem('smoke-tea-clear'), {
        groundId: 'gold',
        coats: 2,
        strength: 1,
        style: 'wet',
        controlCoats: 0,
      }),
    );
    const base = tinted.coats.findLastIndex((c) => c.kind === 'ground');
    expect(tinted.coats[base + 1]!.chemistry).toBe('two-pack');
    expect(tinted.waits[base]).toBe(BEFORE_CLEAR);
    // The painter's own figure takes its place.
    expect(clearOver(bare, { beforeClearMinutes: 45 }).waits[last]).toBe(45);
    expect(clearOver(bare, { beforeClearMinutes: 0 }).waits[last]).toBe(plain.flashes[last]);
  });
  it('uses a wait that was typed as it was typed, at any temperature, film and school', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 38, noNaN: true }),
        fc.double({ min: 0.5, max: 120, noNaN: true }),
        fc.nat(),
        (temperature, minutes, pick) => {
          const { coats } = clearOver(layers, {}, temperature);
          const coat = coats[pick % coats.length]!;
          const edited = clearOver(layers, { edits: { [coat.id]: { flashMinutes: minutes } } }, temperature);
          const k = edited.coats.findIndex((c) => c.id === coat.id);
          expect(edited.flashes[k]).toBe(minutes);
          expect(edited.waits[k]).toBe(minutes);
          expect(edited.runs[k]!.waitMinutes).toBe(minutes);
          if (k + 1 < coats.length) expect(edited.tasks[k + 1]!.after[0]!.min).toBe(minutes);
        },
      ),
    );
  });
  it('tells the gap that is kept, not the flash it would have been', () => {
    const { tasks, batches, coats, waits } = clearOver(bare);
    const line = planTimeline({ tasks, batches, now: 0, done: new Map(), mixed: new Map() });
    const gaps = keptGaps(tasks, line);
    const base = coats.findLastIndex((c) => c.kind === 'ground');
    expect(gaps.get(coats[base]!.id)).toBeGreaterThanOrEqual(BEFORE_CLEAR - 1e-9);
    coats.slice(0, -1).forEach((c, k) => expect(gaps.get(c.id)).toBeGreaterThanOrEqual(waits[k]! - 1e-9));
    // After the last it stands before the bake, 15 min at the least.
    expect(gaps.get(coats.at(-1)!.id)).toBeGreaterThanOrEqual(15);
  });
  it('keeps one mix at two strengths in two cups, each with its own pot life and mixing', () => {
    const two = layersOf(findGround('gold'), findSystem('smoke-tea-clear'), {
      groundId: 'gold',
      coats: 1,
      strength: 1,
      style: 'wet',
      controlCoats: 0,
    }).flatMap((l) => (l.kind === 'effect' ? [l, { ...l, id: 'stronger', strength: 1.5 }] : [l]));
    const short = { ...STARTING_PRODUCTS.find((p) => p.kind === 'tinted clear')!, id: 'short', potLifeMinutes: 30 };
    const plan = tub({
      layers: two,
      products: [...STARTING_PRODUCTS, short],
      named: { stronger: 'short' },
      settings: { ...SETTINGS, bake: false },
    });
    const cups = plan.batches.filter((b) => b.name === 'Smoke tea tinted clear');
    expect(cups.map((c) => [c.id, c.potMinutes])).toEqual([
      ['effect', 150],
      ['stronger', 30],
    ]);
    const line = planTimeline({ ...plan, now: 0, done: new Map(), mixed: new Map() });
    expect(line.tasks.filter((t) => t.batch?.name === 'Smoke tea tinted clear')).toHaveLength(2);
  });
  it('follows the reducer: a slower one, asked for by size or chosen, flashes longer and keeps paint open longer', () => {
    const of = (areaM2: number, reducers: Record<string, string> = {}) =>
      tub({
        reducers,
        pieces: [{ id: 'tub', name: 'tub', x: 0, y: 0, areaM2, first: false }],
        settings: { ...SETTINGS, bake: false },
      });
    const effect = (plan: ReturnType<typeof of>) =>
      plan.flashes[plan.coats.findIndex((c) => c.kind === 'effect' && c.style === 'wet')]!;
    const chosen = of(2, { effect: 'Breakwater reducer, slow' });
    expect(effect(of(2))).toBeCloseTo(12, 9);
    expect(effect(chosen)).toBeGreaterThan(12 * 1.3);
    expect(chosen.air.openMinutes).toBeGreaterThan(of(2).air.openMinutes);
    // A large job asks for the slower one by itself.
    expect(effect(of(12))).toBeCloseTo(effect(chosen), 9);
    expect(effect(of(2, { effect: 'Breakwater reducer, fast' }))).toBeLessThan(12);
  });
  it('takes one product for all coats out of one cup, the control coat among them', () => {
    const { coats } = plan({ effect: slow.id });
    const effect = coats.filter((c) => c.kind === 'effect');
    expect(effect.map((c) => c.style)).toEqual(['wet', 'wet', 'control']);
    expect(effect.map((c) => c.flashMinutes)).toEqual([30, 30, 30]);
    expect(coats.filter((c) => c.kind !== 'effect').some((c) => c.flashMinutes === 30)).toBe(false);
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
            pieceId: String(p),
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

describe('a booth run', () => {
  const tasks: BoothTask[] = ['g', 'e', 'c'].flatMap((coatId) =>
    ['tub', 'back'].map((pieceId) => ({ coatId, pieceId, waitMinutes: 10, closesMinutes: 60 })),
  );
  let n = 0;
  const event = (kind: BoothEvent['kind'], at: number, task?: BoothTask, text = ''): BoothEvent => ({
    id: `e${String(n++).padStart(4, '0')}`,
    at,
    kind,
    coatId: task?.coatId ?? null,
    pieceId: task?.pieceId ?? null,
    text,
  });
  it('is the same however its events arrive: in any order, once or twice', () => {
    const events = tasks.slice(0, 4).map((t, i) => event('sprayed', i * 60_000, t));
    events.push(event('dull', 300_000, tasks[2]!), event('note', 310_000, undefined, 'a nib'));
    events.push(event('undo', 320_000, undefined, events[3]!.id));
    const plain = foldRun(tasks, events);
    expect(plain.done).toBe(3);
    expect(taskKey(plain.next!)).toBe('e|back');
    expect(plain.notes).toHaveLength(1);
    fc.assert(
      fc.property(fc.shuffledSubarray([...events, ...events], { minLength: 14, maxLength: 14 }), (shuffled) => {
        expect(foldRun(tasks, shuffled)).toEqual(plain);
      }),
    );
  });
  it('waits for the flash of the coat below on the same piece, by the clock and by the eye', () => {
    const first = [event('start', 0), event('sprayed', 1000, tasks[0]), event('sprayed', 90_000, tasks[1])];
    const state = foldRun(tasks, first);
    expect(state.next).toBe(tasks[2]);
    expect(state.readyAt).toBe(1000 + 600_000);
    expect(state.isDull).toBe(false);
    expect(foldRun(tasks, [...first, event('dull', 100_000, tasks[0])]).isDull).toBe(true);
    const swapped = foldRun(tasks, [...first, event('swap', 100_000, tasks[3])]);
    expect(swapped.next).toBe(tasks[3]);
    expect(swapped.readyAt).toBe(90_000 + 600_000);
    // The window of the coat below closes after an hour; a tap of another device is not offered to be taken back.
    expect(state.closesAt).toBe(1000 + 3_600_000);
    const [mine, theirs] = [first[1]!, first[2]!];
    expect(foldRun(tasks, first).undoable).toBe(theirs);
    expect(foldRun(tasks, first, (e) => e.id === mine.id).undoable).toBe(mine);
    expect(foldRun(tasks, first, () => false).undoable).toBeNull();
    const all = foldRun(
      tasks,
      tasks.map((t, i) => event('sprayed', 1e6 + i, t)),
    );
    expect(all.next).toBeNull();
    expect(all).toMatchObject({ done: 6, strays: 0 });
    // A piece leaves the plan in mid-run: its sprays stay told, and what is left goes on.
    const without = foldRun(
      tasks.filter((t) => t.pieceId !== 'tub'),
      first,
    );
    expect(without).toMatchObject({ done: 1, strays: 1, next: tasks[3] });
  });
});
