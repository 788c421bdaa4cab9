import { describe, expect, it } from '@jest/globals';
import { eventOf, type JobEvent } from '../jobs/events';
import { waitBetween } from '../jobs/laid';
import { type JobPlan } from '../jobs/planTypes';
import { jobState } from '../jobs/state';
import { laidOf } from '../jobs/whatIsOn';
import { createRandom } from '../numeric/random';
import { REFERENCE_LIBRARY } from '../materials/shop';
import { productKindOf } from '../products/productOf';
import { STARTING_PRODUCTS } from '../products/products';
import { area, PLAIN_SETTINGS, plainPlan } from '../testdata/jobs';
import { evidenceOf, rankCauses, type FaultRecord } from './rank';
import { tooFastReducers } from './reducers';
import { CAUSES, FAULTS, findFault, searchFaults, type CauseId } from './table';

const MINUTE = 60_000;

/** A log that went as it should: every wait taken, a little longer; unless one is shortened or drawn out. */
function logOf(
  plan: JobPlan,
  q: { early?: boolean; late?: boolean; slow?: boolean; stand?: boolean } = {},
): JobEvent[] {
  const events: JobEvent[] = [];
  let at = 0;
  let shortened = false;
  for (let i = 0; i < 400; i++) {
    const state = jobState(plan, events);
    const { next } = state;
    if (!next) break;
    if (next.is === 'check') {
      const { check, readyAt } = next.state;
      if (check.kind === 'standing' && q.stand) {
        events.push(eventOf({ id: `e${i}`, at: at + MINUTE, kind: 'skip', checkId: check.id, text: 'no time' }));
        continue;
      }
      at = Math.max(at + MINUTE, (readyAt ?? 0) + MINUTE);
      events.push(eventOf({ id: `e${i}`, at, kind: 'check', checkId: check.id }));
      continue;
    }
    const { cell, under } = next.state;
    const below = under.map((u) => ({
      u,
      s: state.cells.find((o) => o.cell.coatId === u.coatId && o.cell.areaId === u.areaId)!,
    }));
    const ready = Math.max(0, ...below.map(({ u, s }) => (s.sprayedAt ?? 0) + waitBetween(plan, u, cell) * MINUTE));
    const isEffect = cell.coat.kind === 'effect' || cell.coat.kind === 'clear';
    if (q.early && !shortened && isEffect && below.some(({ s }) => s.sprayedAt !== null)) {
      at = Math.max(at, ready - 0.7 * (ready - Math.max(...below.map(({ s }) => s.sprayedAt ?? 0))));
      shortened = true;
    } else if (q.late && cell.coat.kind === 'clear' && !shortened) {
      const window = Math.max(
        0,
        ...below.map(({ u, s }) =>
          u.coat.recoatMinutes === null ? 0 : (s.sprayedAt ?? 0) + u.coat.recoatMinutes * MINUTE,
        ),
      );
      at = Math.max(at, ready, window + 30 * MINUTE);
      shortened = true;
    } else at = Math.max(at + MINUTE * (q.slow ? 16 : 1), ready + MINUTE);
    events.push(eventOf({ id: `e${i}`, at, kind: 'sprayed', cells: [laidOf(cell)] }));
  }
  return events;
}

/** What is planted for a cause that a log can show; the others leave no trace. */
type Planted = Partial<Record<CauseId, () => Partial<FaultRecord>>>;

const two = { areas: [area('tub'), area('back')] };
const plan = plainPlan(two);
const base = (events: JobEvent[], of: JobPlan = plan): FaultRecord => ({
  plan: of,
  events,
  state: jobState(of, events),
  ...{ temperatureC: 20, humidity: 0.5, blown: false, limitUm: 900, differences: [], tooFast: [] },
  hidesIn: () => null,
});
const plain = base(logOf(plan));
const differs = (
  what: 'distanceCm' | 'pressureBar' | 'turns',
  card: number,
  now: number,
  lays: number | null = null,
) => ({
  differences: [{ what, card, plan: now, lays }] as FaultRecord['differences'],
});
const fewOverlap = plainPlan({
  ...two,
  settings: {
    ...PLAIN_SETTINGS,
    edits: Object.fromEntries(
      plan.cells.filter((c) => c.coat.kind === 'effect').map((c) => [c.coatId, { overlap: 0.55 }]),
    ),
  },
});
const blend = (endCm: number) => ({ kind: 'blend' as const, endCm, fadeCm: 10, stepCm: 5, from: 'edge' });
const past = plainPlan({
  ...two,
  settings: {
    ...PLAIN_SETTINGS,
    cells: [
      { areaId: 'tub', layerId: 'ground', coats: null, reach: blend(60) },
      { areaId: 'tub', layerId: 'effect', coats: null, reach: blend(40) },
    ],
  },
});
const skipPrep = (): JobEvent[] =>
  logOf(plan).map((e) => (e.checkId === 'prep' ? { ...e, kind: 'skip' as const, text: 'no time' } : e));
const early = logOf(plan, { early: true });
const late = logOf(plan, { late: true });
const slow = logOf(plan, { slow: true });
const stand = logOf(plan, { stand: true });
const skipped = skipPrep();
const overlapLog = logOf(fewOverlap);
const pastLog = logOf(past);

const PLANTS: Planted = {
  'wet-below': () => base(early),
  'window-passed': () => base(late),
  'short-standing': () => base(stand),
  'too-heavy': () => differs('turns', 2, 3, 1.4),
  'too-close': () => differs('distanceCm', 15, 11),
  'too-far': () => differs('distanceCm', 15, 22),
  'low-pressure': () => differs('pressureBar', 1.4, 1),
  'uneven-pitch': () => base(overlapLog, fewOverlap),
  'fast-reducer': () => ({ tooFast: ['Reducer, fast'], temperatureC: 30 }),
  cold: () => ({ temperatureC: 11 }),
  damp: () => ({ humidity: 0.9 }),
  blown: () => ({ blown: true }),
  'thick-build': () => ({ limitUm: 60 }),
  'dry-overspray': () => base(slow),
  'thin-ground': () => ({ hidesIn: (id) => (id === 'ground' ? 4 : null) }),
  grease: () => base(skipped),
  'no-tack': () => base(skipped),
  'coarse-prep': () => base(skipped),
  'no-tooth': () => base(skipped),
  reach: () => base(pastLog, past),
};

describe('the table of faults', () => {
  // Source: the trade's own table; common practice (no source). Row by row what is seen there.
  it('has every row, each with causes that come to one, and a way out or the reason why none is', () => {
    expect(FAULTS).toHaveLength(22);
    expect(new Set(FAULTS.map((f) => f.id)).size).toBe(22);
    for (const f of FAULTS) {
      expect(f.causes.reduce((sum, c) => sum + c.prior, 0)).toBeCloseTo(1, 9);
      expect(f.before !== null || f.after !== null).toBe(true);
      for (const said of [f.told, f.never, f.caution, f.before ?? 'none at all', f.after ?? 'none at all'])
        expect(said.length).toBeGreaterThan(9);
      for (const c of f.causes) expect(CAUSES[c.id].instead.length).toBeGreaterThan(5);
    }
    // Darker is never answered with a coat there.
    expect(findFault('dark-edges').before).toMatch(/Nothing there gets lighter/);
    expect(findFault('dark-edges').never).toMatch(/No coat on the dark place/);
    expect(() => findFault('none')).toThrow(RangeError);
  });

  it('is found by the words of the shop, the nearest first, and whole for no word', () => {
    expect(searchFaults('')).toEqual(FAULTS);
    for (const f of FAULTS) {
      expect(searchFaults(f.name)[0]!.id).toBe(f.id);
      for (const w of f.words) expect(searchFaults(w).map((x) => x.id)).toContain(f.id);
    }
    expect(searchFaults('zebra').map((f) => f.id)).toEqual(['stripes']);
    expect(searchFaults('unheard of')).toEqual([]);
  });
});

describe('causes by the job’s own record', () => {
  it('say why, in the job’s own figures', () => {
    const ranked = rankCauses(findFault('mottling'), evidenceOf(base(early)));
    expect(ranked[0]!.id).toBe('wet-below');
    expect(ranked[0]!.why[0]).toMatch(/^Cinder candy.* went on \d+ min after .*, which needed \d+ min$/);
    expect(ranked.reduce((sum, r) => sum + r.chance, 0)).toBeCloseTo(1, 9);
    // A clean log speaks against it.
    const clean = rankCauses(findFault('mottling'), evidenceOf(plain));
    expect(clean.find((r) => r.id === 'wet-below')!.chance).toBeLessThan(0.2);
    expect(clean.flatMap((r) => r.why)).toEqual([]);
  });

  it('name a planted cause among the first two in nine of ten logs, more often than the prior alone', () => {
    const random = createRandom(16);
    const kept = new Map<string, ReturnType<typeof evidenceOf>>();
    const evidence = (key: string, more: Partial<FaultRecord>) => {
      let known = kept.get(key);
      if (!known) kept.set(key, (known = evidenceOf({ ...plain, ...more })));
      return known;
    };
    const causes = Object.keys(PLANTS) as CauseId[];
    const each = new Map<string, { all: number; found: number }>();
    let [found, prior, all] = [0, 0, 0];
    for (let i = 0; i < 550; i++) {
      const fault = FAULTS[i % FAULTS.length]!;
      let pick = random();
      const cause = fault.causes.find((c) => (pick -= c.prior) < 0) ?? fault.causes.at(-1)!;
      const planted = evidence(cause.id, PLANTS[cause.id]?.() ?? {});
      // One log in eight has something else off that did not make this fault.
      const other = random() < 1 / 8 ? causes[Math.floor(random() * causes.length)]! : null;
      const noise = other ? evidence(other, PLANTS[other]!()).filter((e) => e.why) : [];
      const isIn = (ranked: readonly { id: CauseId }[]) => ranked.slice(0, 2).some((r) => r.id === cause.id);
      const here = each.get(fault.id) ?? { all: 0, found: 0 };
      const ok = isIn(rankCauses(fault, [...planted, ...noise]));
      each.set(fault.id, { all: here.all + 1, found: here.found + Number(ok) });
      found += Number(ok);
      prior += Number(isIn(rankCauses(fault)));
      all++;
    }
    for (const e of each.values()) expect(e.all).toBeGreaterThanOrEqual(10);
    expect(found / all).toBeGreaterThanOrEqual(0.9);
    expect(prior / all).toBeGreaterThanOrEqual(0.6);
    expect(found).toBeGreaterThan(prior);
  });
});

describe('a reducer made for less warmth than there is', () => {
  const ask = (temperatureC: number, chosen: Record<string, string>, products = STARTING_PRODUCTS) =>
    tooFastReducers({ plan, library: REFERENCE_LIBRARY, products, named: {}, reducers: chosen, temperatureC });
  const plan = plainPlan();
  const cup = plan.layers.find((l) => l.kind === 'ground')!;
  const reducers = STARTING_PRODUCTS.find((p) => p.kind === productKindOf(cup, REFERENCE_LIBRARY))!
    .additives.filter((a) => a.role === 'reducer')
    .sort((a, b) => a.toC - b.toC);

  it('is none where the advised one suits, and one that was chosen for the cool', () => {
    const warm = reducers[0]!.toC + 3;
    expect(ask(20, {})).toEqual([]);
    expect(ask(warm, { [cup.id]: reducers[0]!.name })).toEqual([reducers[0]!.name]);
    expect(ask(reducers[0]!.toC + 1, { [cup.id]: reducers[0]!.name })).not.toContain(reducers[0]!.name);
  });

  it('is named once, however many cups have it; what pours no reducer has none', () => {
    const all = Object.fromEntries(plan.layers.map((l) => [l.id, reducers[0]!.name]));
    const said = ask(45, all);
    expect(new Set(said).size).toBe(said.length);
    const dry = STARTING_PRODUCTS.map((p) => ({ ...p, pours: p.pours.filter((o) => o !== 'reducer') }));
    expect(ask(45, all, dry)).toEqual([]);
  });
});
