import type { Check } from './checks';
import { cellKey, inForce, type CellRef, type JobEvent, type Laid, LET_DOWN, TOLD_APART_MS } from './events';
import { withMend } from './mend';
import type { Cell } from './job';
import { extraCell } from './plan';
import { waitBetween } from './laid';
import { type JobPlan } from './planTypes';
import type { JobState, CellState, CheckState, Step } from './stateTypes';
import { areaOn, isLaid } from './whatIsOn';

/** What can be taken back by a tap. */
const UNDOABLE: readonly JobEvent['kind'][] = [
  'sprayed',
  'dull',
  'swap',
  'extra',
  'skip',
  'check',
  'fault',
  'mend',
  'look',
  'note',
];

/**
 * Where a job stands: the one answer to what is on, what is next, from when, until when, and what is off. Pure; the same for
 * events in any order, sent twice or in two batches.
 * @param own whether an event was made on this device: only such a one is offered to be taken back
 */
export function jobState(
  plan: JobPlan,
  events: readonly JobEvent[],
  own: (event: JobEvent) => boolean = () => true,
): JobState {
  const kept = inForce(events);
  const sprayed = new Map<string, { readonly at: number; readonly laid: CellRef | Laid }>();
  const dull = new Set<string>();
  const left = new Map<string, string>();
  const judged = new Map<
    string,
    {
      readonly is: 'passed' | 'skipped' | 'fault';
      readonly reason: string;
      readonly at: number;
      readonly cells: JobEvent['cells'];
    }
  >();
  const extras: { readonly cell: Cell; readonly event: JobEvent }[] = [];
  const mends: JobEvent[] = [];
  let started: number | null = null;
  let front: string | null = null;
  for (const e of kept) {
    if (e.kind === 'start') started ??= e.at;
    else if (e.kind === 'sprayed')
      for (const c of e.cells) {
        // The first tap is the one that tells when.
        const key = cellKey(c);
        if (!sprayed.has(key)) sprayed.set(key, { at: e.at, laid: c });
      }
    else if (e.kind === 'dull') for (const c of e.cells) dull.add(cellKey(c));
    else if (e.kind === 'skip' && e.checkId === null) for (const c of e.cells) left.set(cellKey(c), e.text);
    else if (e.kind === 'swap') front = e.cells[0] ? cellKey(e.cells[0]) : null;
    else if (e.kind === 'extra' && e.layerId !== null)
      for (const c of e.cells) {
        const cell = extraCell(plan, {
          id: c.coatId,
          layerId: e.layerId,
          areaId: c.areaId,
          coats: e.coats ?? 1,
          letDown: e.text === LET_DOWN,
        });
        if (cell) extras.push({ cell, event: e });
      }
    else if (e.kind === 'mend') {
      mends.push(e);
      // What was found there is mended: its check is asked anew.
      const here = new Set(e.cells.map((c) => c.areaId));
      for (const [id, j] of judged) if (j.is === 'fault' && j.cells.some((c) => here.has(c.areaId))) judged.delete(id);
    } else if (e.checkId !== null && (e.kind === 'check' || e.kind === 'skip' || e.kind === 'fault'))
      judged.set(e.checkId, {
        is: e.kind === 'check' ? 'passed' : e.kind === 'skip' ? 'skipped' : 'fault',
        reason: e.text,
        at: e.at,
        cells: e.cells,
      });
  }
  if (sprayed.size) started ??= Math.min(...[...sprayed.values()].map((s) => s.at));

  const isOver = (id: string) => ['passed', 'skipped'].includes(judged.get(id)?.is ?? '');
  const { cells, checks } = mends.reduce((now, m) => withMend(plan, now, m, isOver), withExtras(plan, extras));
  const byKey = new Map(cells.map((c) => [cellKey(c), c]));
  const isPlanned = new Set(plan.cells.map(cellKey));
  const isLeft = (c: CellRef) => left.has(cellKey(c)) && !sprayed.has(cellKey(c));
  // What lies under a cell: what is left out of it gives way to what is under that.
  const underOf = (c: Cell, seen = new Set<string>()): Cell[] =>
    c.under.flatMap((u) => {
      const key = cellKey(u);
      const below = byKey.get(key);
      if (!below || seen.has(key)) return [];
      seen.add(key);
      return isLeft(below) ? underOf(below, seen) : [below];
    });
  const over = (id: string): boolean => {
    const is = judged.get(id)?.is;
    return is === 'passed' || is === 'skipped' || !checks.some((k) => k.id === id);
  };
  const states = cells.map((cell): CellState => {
    const key = cellKey(cell);
    const under = underOf(cell);
    const on = sprayed.get(key);
    return {
      cell,
      sprayedAt: on?.at ?? null,
      leftOut: isLeft(cell) ? (left.get(key) ?? '') : null,
      isDull: dull.has(key),
      isExtra: !isPlanned.has(key),
      under,
      open: !on && !isLeft(cell) && under.every((u) => sprayed.has(cellKey(u))) && cell.checks.every(over),
    };
  });
  const stateOf = new Map(states.map((s) => [cellKey(s.cell), s]));
  // What a check waits for: sprayed, or left out, which gives way to what is under it.
  const reached = (c: CellRef): boolean => {
    const s = stateOf.get(cellKey(c));
    if (!s) return true;
    return s.sprayedAt !== null || (s.leftOut !== null && s.under.every((u) => sprayed.has(cellKey(u))));
  };
  const checkStates = checks.map((check): CheckState => {
    const said = judged.get(check.id);
    const due = check.after.every(reached) && check.afterChecks.every(over);
    const since = Math.max(
      ...check.after.map((c) => sprayed.get(cellKey(c))?.at ?? -Infinity),
      ...check.afterChecks.map((id) => judged.get(id)?.at ?? -Infinity),
    );
    return {
      check,
      is: said?.is ?? 'open',
      reason: said?.reason ?? '',
      at: said?.at ?? null,
      due,
      readyAt: due && check.minutes > 0 && Number.isFinite(since) ? since + check.minutes * 60_000 : null,
    };
  });
  const steps = stepsOf(states, checkStates);
  const isOpen = (s: Step): boolean =>
    s.is === 'cell' ? s.state.open : s.state.due && s.state.is !== 'passed' && s.state.is !== 'skipped';
  const openSteps = steps.filter(isOpen);
  const swapped = openSteps.find((s) => s.is === 'cell' && cellKey(s.state.cell) === front);
  const next = swapped ?? openSteps[0] ?? null;
  const openCells = openSteps.flatMap((s) => (s.is === 'cell' ? [s.state] : []));
  const waits = next?.is === 'cell' ? clockOf(plan, next.state, sprayed) : { readyAt: null, closesAt: null };
  const sanded =
    next?.is === 'cell' && checks.some((k) => k.kind === 'sand' && next.state.cell.checks.includes(k.id) && over(k.id));

  const areas = plan.areas.map((a) => areaOn(a.id, states, sprayed, byKey));
  const onPlan = states.filter((s) => s.sprayedAt !== null).length;
  const strays = [...sprayed].flatMap(([key, { laid }]) =>
    byKey.has(key) ? [] : [isLaid(laid) ? laid : { ...laid, layerId: null, name: '', coats: 0, filmUm: 0 }],
  );
  return {
    started,
    cells: states,
    checks: checkStates,
    steps,
    next,
    others: openCells.filter((s) => next?.is !== 'cell' || s !== next.state),
    round: next?.is === 'cell' ? openCells.filter((s) => s.cell.round === next.state.cell.round) : [],
    readyAt: next?.is === 'check' ? next.state.readyAt : waits.readyAt,
    // What was sanded has a tooth of its own: no window closes on it.
    closesAt: sanded ? null : waits.closesAt,
    isDull: next?.is === 'cell' && next.state.under.length > 0 && next.state.under.every((u) => dull.has(cellKey(u))),
    areas,
    done: onPlan,
    total: states.filter((s) => s.leftOut === null).length,
    history: kept.filter((e) => ['look', 'note', 'photo', 'fault', 'mend', 'skip', 'check', 'extra'].includes(e.kind)),
    undoable: lastTap(kept.filter((e) => UNDOABLE.includes(e.kind) && own(e))),
    strays,
  };
}

/** What one tap told, the newest first. @param events those that can be taken back, oldest first */
function lastTap(events: readonly JobEvent[]): JobEvent[] {
  let from = Math.max(0, events.length - 1);
  while (from > 0 && events[from]!.at - events[from - 1]!.at === TOLD_APART_MS) from--;
  return events.slice(from).reverse();
}

/** When a cell may go on by the clock and until when, from what lies under it, ms. */
function clockOf(
  plan: JobPlan,
  state: CellState,
  sprayed: ReadonlyMap<string, { readonly at: number }>,
): { readonly readyAt: number | null; readonly closesAt: number | null } {
  const times = state.under.flatMap((u) => {
    const on = sprayed.get(cellKey(u));
    if (!on) return [];
    const wait = waitBetween(plan, u, state.cell);
    return [
      {
        ready: on.at + wait * 60_000,
        closes: u.recoatMinutes === null ? Infinity : on.at + Math.max(wait, u.recoatMinutes) * 60_000,
      },
    ];
  });
  if (!times.length) return { readyAt: null, closesAt: null };
  const closes = Math.min(...times.map((t) => t.closes));
  return { readyAt: Math.max(...times.map((t) => t.ready)), closesAt: Number.isFinite(closes) ? closes : null };
}

/** The plan's cells and checks with the extra coats in their places: each after the last coat of its layer there. */
function withExtras(
  plan: JobPlan,
  extras: readonly { readonly cell: Cell; readonly event: JobEvent }[],
): { readonly cells: readonly Cell[]; readonly checks: readonly Check[] } {
  if (!extras.length) return plan;
  let cells = [...plan.cells];
  let planned = plan.checks;
  const looks: Check[] = [];
  for (const { cell, event } of extras) {
    if (cells.some((c) => cellKey(c) === cellKey(cell))) continue;
    const at = cells.findLastIndex((c) => c.areaId === cell.areaId && c.layerId === cell.layerId);
    const below = cells[at]!;
    const look = cell.coat.kind === 'effect' ? `look/${event.id}` : null;
    const same = (u: CellRef) => u.coatId === below.coatId && u.areaId === below.areaId;
    const mine: CellRef = { coatId: cell.coatId, areaId: cell.areaId };
    cells = cells.map((c) =>
      c.under.some(same)
        ? {
            ...c,
            under: c.under.map((u) => (same(u) ? mine : u)),
            // An effect coat more is looked at before anything goes over it.
            checks: look ? [look, ...c.checks] : c.checks,
          }
        : c,
    );
    // What is looked at behind the layer is looked at behind this coat of it.
    planned = planned.map((k) => (k.after.some(same) ? { ...k, after: k.after.map((u) => (same(u) ? mine : u)) } : k));
    cells.splice(at + 1, 0, { ...cell, under: [{ coatId: below.coatId, areaId: below.areaId }], checks: [] });
    if (!look) continue;
    const known = looks.findIndex((k) => k.id === look);
    const old = looks[known];
    const check: Check = {
      id: look,
      kind: 'look',
      objectId: cell.objectId,
      areaIds: [...(old?.areaIds ?? []), cell.areaId],
      layerId: cell.layerId,
      coats: null,
      after: [...(old?.after ?? []), mine],
      afterChecks: [],
      minutes: 0,
      takes: 2,
    };
    if (known >= 0) looks[known] = check;
    else looks.push(check);
  }
  return { cells, checks: [...planned, ...looks] };
}

/** Cells in their order, each check right before the first cell that waits for it; those that nothing waits for at the end. */
function stepsOf(cells: readonly CellState[], checks: readonly CheckState[]): Step[] {
  const byId = new Map(checks.map((c) => [c.check.id, c]));
  const put = new Set<string>();
  const steps: Step[] = [];
  const check = (id: string): void => {
    const state = byId.get(id);
    if (!state || put.has(id)) return;
    put.add(id);
    state.check.afterChecks.forEach(check);
    steps.push({ is: 'check', state });
  };
  for (const state of cells) {
    state.cell.checks.forEach(check);
    steps.push({ is: 'cell', state });
  }
  byId.forEach((_, id) => check(id));
  return steps;
}
