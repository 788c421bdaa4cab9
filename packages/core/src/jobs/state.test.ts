import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { cupOf } from '../products/productOf';
import { area, finish, object, PLAIN_SETTINGS, plainPlan } from '../testdata/jobs';
import { MIN, tapped } from '../testdata/runs';
import { cellKey, ENOUGH, eventOf, TOLD_APART_MS, type JobEvent } from './events';
import type { CellEdit, SprayArea } from './job';
import type { JobPlanInput } from './planTypes';
import { jobState } from './state';
import { coatsOn, solidsOn } from './whatIsOn';
import { laidOf } from './whatIsOn';
import { type JobState } from './stateTypes';
import { enoughTold, extraTold, nextCoatTold, undoTold, type Told } from './tell';

/** Jobs of one to three objects with areas, stripes, counts and changed cells of their own. */
const jobs = fc
  .record({
    objects: fc.array(
      fc.record({
        areas: fc.integer({ min: 1, max: 3 }),
        count: fc.option(fc.constantFrom(1, 2, 2.5, 3, 4), { nil: null }),
        lookAfter: fc.option(fc.integer({ min: 1, max: 3 }), { nil: null }),
        striped: fc.boolean(),
        jamb: fc.boolean(),
        loose: fc.boolean(),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    edits: fc.array(
      fc.record({
        at: fc.nat(),
        layerId: fc.constantFrom('sealer', 'ground', 'effect', 'clear'),
        coats: fc.option(fc.constantFrom(0, 1, 2.5), { nil: null }),
        spot: fc.boolean(),
      }),
      { maxLength: 3 },
    ),
    school: fc.constantFrom('wet' as const, 'mist' as const),
    grip: fc.boolean(),
    bake: fc.boolean(),
  })
  .map((r): Partial<JobPlanInput> => {
    const areas = r.objects.flatMap((o, i): SprayArea[] => [
      ...Array.from({ length: o.areas }, (_, k) =>
        area(`a${i}${k}`, { objectId: `o${i}`, x: i, y: k, first: o.jamb && k === 1, loose: o.loose && k === 0 }),
      ),
      ...(o.striped ? [area(`s${i}`, { objectId: `o${i}`, on: `a${i}0`, finishId: 'lines', areaM2: 0.3 })] : []),
    ]);
    return {
      finishes: [finish('main', 'lagoon-pearl', 'aqua-pastel', 3), finish('lines', 'cinder-candy', 'gold', 2)],
      objects: r.objects.map((o, i) =>
        object(`o${i}`, { counts: [{ finishId: 'main', coats: o.count, lookAfter: o.lookAfter }] }),
      ),
      areas,
      settings: {
        ...PLAIN_SETTINGS,
        school: r.school,
        grip: r.grip,
        bake: r.bake,
        cells: r.edits.map((e): CellEdit => ({
          areaId: areas[e.at % areas.length]!.id,
          layerId: e.layerId,
          coats: e.coats,
          reach: e.spot ? { kind: 'spot', m2: 0.1 } : null,
        })),
      },
    };
  });

const seeds = fc.integer({ min: 1, max: 1e6 });
const runs = fc.tuple(jobs, seeds, fc.integer({ min: 0, max: 30 }));
const few = { numRuns: 60 };

describe('the fold over plan and events', () => {
  it('is the same in any order, with duplicates and in two batches', () => {
    fc.assert(
      fc.property(runs, fc.infiniteStream(fc.nat()), ([job, seed, taps], order) => {
        const plan = plainPlan(job);
        const events = tapped(plan, seed, taps);
        const plain = jobState(plan, events);
        const keyed = [...events, ...events.slice(0, 7)].map((e) => ({ e, k: order.next().value! }));
        expect(
          jobState(
            plan,
            keyed.sort((a, b) => a.k - b.k).map((x) => x.e),
          ),
        ).toEqual(plain);
        const half = events.length >> 1;
        expect(jobState(plan, [...events.slice(half), ...events.slice(0, half)])).toEqual(plain);
      }),
      few,
    );
  });
  it('takes an undo back by an undo of it', () => {
    fc.assert(
      fc.property(runs, fc.nat(), ([job, seed, taps], pick) => {
        const plan = plainPlan(job);
        const events = tapped(plan, seed, taps);
        const of = events[pick % events.length]!;
        const undo = eventOf({ id: 'u1', at: 1e9, kind: 'undo', text: of.id });
        const again = eventOf({ id: 'u2', at: 1e9 + 1, kind: 'undo', text: 'u1' });
        expect(jobState(plan, [...events, undo, again])).toEqual(jobState(plan, events));
      }),
      few,
    );
  });
  it('lets no cell be tapped before what must lie under it, and no object wait for another’s checks', () => {
    fc.assert(
      fc.property(runs, ([job, seed, taps]) => {
        const plan = plainPlan(job);
        const state = jobState(plan, tapped(plan, seed, taps));
        const on = new Set(state.cells.filter((c) => c.sprayedAt !== null).map((c) => cellKey(c.cell)));
        for (const c of state.cells.filter((s) => s.open)) {
          expect(c.under.every((u) => on.has(cellKey(u)))).toBe(true);
          const below = state.cells
            .slice(0, state.cells.indexOf(c))
            .filter((s) => s.cell.areaId === c.cell.areaId && s.leftOut === null);
          expect(below.every((s) => s.sprayedAt !== null)).toBe(true);
        }
        for (const { cell } of state.cells)
          for (const id of cell.checks) {
            const { check } = state.checks.find((k) => k.check.id === id)!;
            expect([null, cell.objectId]).toContain(check.objectId);
          }
      }),
      few,
    );
  });
  it('counts film by cell: areas, layers, amounts and the whole come to the same', () => {
    fc.assert(
      fc.property(runs, ([job, seed, taps]) => {
        const plan = plainPlan(job);
        const state = jobState(plan, tapped(plan, seed, taps));
        const sums = solidsOn(state, () => true);
        const byCup = [...new Set(state.cells.map((c) => c.cell.coat.cupId))].map((id) =>
          solidsOn(state, (c) => c.coat.cupId === id),
        );
        expect(byCup.reduce((s, c) => s + c.planned, 0)).toBeCloseTo(sums.planned, 6);
        for (const a of state.areas) {
          const own = state.cells.filter((c) => c.cell.areaId === a.areaId);
          const film = (list: JobState['cells']) => list.reduce((s, c) => s + c.cell.coat.filmUm, 0);
          expect(a.filmUm).toBeCloseTo(film(own.filter((c) => c.sprayedAt !== null)), 6);
          expect(a.plannedUm).toBeCloseTo(film(own.filter((c) => c.leftOut === null)), 6);
        }
        expect(state.done).toBe(state.cells.filter((c) => c.sprayedAt !== null).length);
        expect(plan.layers.every((l) => plan.layers.some((o) => o.id === cupOf(l, plan.layers)))).toBe(true);
      }),
      few,
    );
  });
  it('never loses a coat that was sprayed to a change of the plan: what is off the plan is listed and still counts', () => {
    fc.assert(
      fc.property(runs, jobs, ([job, seed, taps], other) => {
        const plan = plainPlan(job);
        const events = tapped(plan, seed, taps);
        const before = jobState(plan, events);
        const after = jobState(plainPlan({ ...other, areas: job.areas!, objects: job.objects! }), events);
        const counted = (s: JobState) => s.areas.map((a) => a.layers.reduce((n, l) => n + l.coats, 0));
        counted(after).forEach((n, i) => expect(n).toBeCloseTo(counted(before)[i]!, 9));
        after.areas.forEach((a, i) => expect(a.filmUm).toBeCloseTo(before.areas[i]!.filmUm, 9));
        const gone = jobState(plainPlan({ ...job, areas: job.areas!.slice(0, 1) }), events);
        const laid = before.done + before.strays.length;
        expect(gone.done + gone.strays.length).toBe(laid);
      }),
      few,
    );
  });
  it('comes to an end by taking each next step', () => {
    fc.assert(
      fc.property(jobs, (job) => {
        const plan = plainPlan(job);
        const events: JobEvent[] = [];
        let state = jobState(plan, events);
        for (let i = 0; state.next; i++) {
          expect(i).toBeLessThan(plan.cells.length + plan.checks.length);
          const about = { id: `e${i}`, at: i * MIN };
          events.push(
            state.next.is === 'cell'
              ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(state.next.state.cell)] })
              : eventOf({ ...about, kind: 'check', checkId: state.next.state.check.id }),
          );
          state = jobState(plan, events);
        }
        expect(state.done).toBe(state.total);
        expect(state.checks.every((c) => c.is === 'passed')).toBe(true);
      }),
      few,
    );
  });
});

describe('a run', () => {
  const plan = plainPlan({
    objects: [
      object('coach 1', { counts: [{ finishId: 'main', coats: 3, lookAfter: 2 }] }),
      object('coach 2', { counts: [{ finishId: 'main', coats: 4, lookAfter: 3 }] }),
    ],
    areas: [area('side 1', { objectId: 'coach 1' }), area('side 2', { objectId: 'coach 2' })],
    settings: { ...PLAIN_SETTINGS, bake: false },
  });
  const said = (s: JobState): string =>
    s.next === null ? 'done' : s.next.is === 'check' ? s.next.state.check.id : cellKey(s.next.state.cell);
  /** Takes every next step until one is reached. */
  const until = (stop: (s: JobState) => boolean, begin: readonly JobEvent[] = []): JobEvent[] => {
    const events = [...begin];
    for (let i = events.length; ; i++) {
      const state = jobState(plan, events);
      if (stop(state) || !state.next) return events;
      const about = { id: `e${i}`, at: i * 30 * MIN };
      events.push(
        state.next.is === 'cell'
          ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(state.next.state.cell)] })
          : eventOf({ ...about, kind: 'check', checkId: state.next.state.check.id }),
      );
    }
  };
  it('stops the first object at its count and goes on with the second, then both to clear', () => {
    const events = until((s) => said(s) === 'look/coach 1/main');
    expect(coatsOn(jobState(plan, events), 'effect', ['side 1'])).toEqual({ least: 2, most: 2 });
    const clear = until((s) => s.next?.is === 'cell' && s.next.state.cell.coat.kind === 'clear', events);
    const state = jobState(plan, clear);
    expect(coatsOn(state, 'effect', ['side 1'])).toEqual({ least: 3, most: 3 });
    expect(coatsOn(state, 'effect', ['side 2'])).toEqual({ least: 4, most: 4 });
  });
  it('waits by clock and by eye for what lies under the next, and says until when', () => {
    const events = until((s) => s.next?.is === 'cell' && s.next.state.cell.coat.kind === 'ground');
    const state = jobState(plan, events);
    const sealed = state.cells.find((c) => c.cell.layerId === 'sealer' && c.cell.areaId === 'side 1')!;
    expect(state.readyAt).toBe(sealed.sprayedAt! + sealed.cell.flashMinutes * MIN);
    expect(state.closesAt).toBe(
      sealed.cell.recoatMinutes === null ? null : sealed.sprayedAt! + sealed.cell.recoatMinutes * MIN,
    );
    expect(state.isDull).toBe(false);
    const dull = eventOf({ id: 'd', at: 1e9, kind: 'dull', cells: [sealed.cell] });
    expect(jobState(plan, [...events, dull]).isDull).toBe(true);
  });
  it('lays a half more where it is short, looks again, and says enough', () => {
    const events = until((s) => said(s) === 'look/coach 1/main');
    const at = 1e8;
    const left = jobState(plan, events).cells.filter(
      (c) => c.cell.areaId === 'side 1' && c.cell.layerId === 'effect' && c.sprayedAt === null,
    );
    expect(left).toHaveLength(1);
    const cells = left.map(({ cell: { coatId, areaId } }) => ({ coatId, areaId }));
    const half = eventOf({
      id: 'half',
      at,
      kind: 'extra',
      layerId: 'effect',
      coats: 0.5,
      cells: [{ coatId: 'x1', areaId: 'side 1' }],
    });
    const enough = eventOf({ id: 'enough', at: at + 1, kind: 'skip', cells, text: ENOUGH });
    const passed = eventOf({ id: 'ok', at: at + 2, kind: 'check', checkId: 'look/coach 1/main' });
    const after = jobState(plan, [...events, half, enough, passed]);
    const x = after.cells.find((c) => c.isExtra)!;
    expect(x.open).toBe(true);
    expect(after.areas[0]!.layers.find((l) => l.layerId === 'effect')!.planned).toBeCloseTo(2.5, 9);
    const laid = eventOf({ id: 'laid', at: at + 3, kind: 'sprayed', cells: [laidOf(x.cell)] });
    const then = jobState(plan, [...events, half, enough, passed, laid]);
    expect(coatsOn(then, 'effect', ['side 1']).most).toBeCloseTo(2.5, 9);
    expect(then.checks.find((c) => c.check.id === 'look/half')).toMatchObject({ is: 'open', due: true });
    // Nothing more of the effect is left there; the lamp and the clear come after the look.
    const order = then.steps.flatMap((s) => (s.is === 'check' ? [s.state.check.id] : []));
    expect(order.indexOf('look/half')).toBeLessThan(order.indexOf('lamp/coach 1'));
    expect(then.checks.find((c) => c.check.id === 'lamp/coach 1')!.check.after).toContainEqual({
      coatId: 'x1',
      areaId: 'side 1',
    });
    expect(then.cells.some((c) => c.open && c.cell.areaId === 'side 1')).toBe(false);
  });
  it('offers only what was tapped here to be taken back', () => {
    const events = until((s) => s.done === 2);
    const mine = events.at(-2)!;
    expect(jobState(plan, events).undoable).toEqual([events.at(-1)!]);
    expect(jobState(plan, events, (e) => e.id === mine.id).undoable).toEqual([mine]);
    expect(jobState(plan, events, () => false).undoable).toEqual([]);
  });
  it('takes back all that a tap told, and nothing but it', () => {
    for (const done of [1, 2, 4, 6]) {
      const before = until((s) => s.done === done);
      const at = before.at(-1)!.at + 5_000;
      const state = jobState(plan, before);
      let made = 0;
      const fresh = () => `new${made++}`;
      const taps: Told[][] = [
        extraTold(state, ['effect'], ['side 1', 'side 2'], 0.5, true, fresh),
        nextCoatTold(state, ['effect'], ['side 1'], fresh),
        [...enoughTold(state, ['effect'], ['side 1'], ENOUGH), { kind: 'note', text: 'enough there' }],
      ];
      for (const told of taps) {
        const tap = told.map((e, i) => eventOf({ ...e, id: `t${i}`, at: at + i * TOLD_APART_MS }));
        const after = jobState(plan, [...before, ...tap]);
        expect(after.undoable).toEqual(tap.toReversed());
        const back = undoTold(after).map((e, i) => eventOf({ ...e, id: `u${i}`, at: at + 60_000 + i }));
        expect(jobState(plan, [...before, ...tap, ...back])).toEqual(state);
      }
    }
  });
});
