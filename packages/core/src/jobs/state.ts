import type { Check } from './checks';
import { cellKey, inForce, type CellRef, type JobEvent, type Laid, LET_DOWN, PUT_RIGHT } from './events';
import { withMend } from './mend';
import type { Cell } from './job';
import { extraCell, waitBetween, type JobPlan } from './plan';

/** A cell and what became of it. */
export interface CellState {
  readonly cell: Cell;
  /** ms since 1970; null while it is not on. */
  readonly sprayedAt: number | null;
  /** Why it is left out; null where it is not. */
  readonly leftOut: string | null;
  readonly isDull: boolean;
  /** A coat more than was planned. */
  readonly isExtra: boolean;
  /** What lies right under it, by what is laid and left out. */
  readonly under: readonly Cell[];
  /** It may be tapped: what must lie under it is on, and its checks are over. Whether the clock lets it is `readyAt`. */
  readonly open: boolean;
}

export interface CheckState {
  readonly check: Check;
  /** `passed`, `skipped` with a reason, a `fault` found at it, or still `open`. */
  readonly is: 'open' | 'passed' | 'skipped' | 'fault';
  readonly reason: string;
  readonly at: number | null;
  /** What must be over before it is. */
  readonly due: boolean;
  /** When its own clock has run, ms; null where it has none or it has not begun. */
  readonly readyAt: number | null;
}

export type Step =
  { readonly is: 'cell'; readonly state: CellState } | { readonly is: 'check'; readonly state: CheckState };

/** What is on of one layer on one area. */
export interface LayerOn {
  readonly layerId: string;
  /** Coats that count, on and planned. */
  readonly coats: number;
  readonly planned: number;
  /** Dry, um; grip and tack coats with it. */
  readonly filmUm: number;
  readonly plannedUm: number;
}

export interface AreaOn {
  readonly areaId: string;
  readonly layers: readonly LayerOn[];
  readonly filmUm: number;
  readonly plannedUm: number;
}

export interface JobState {
  readonly started: number | null;
  readonly cells: readonly CellState[];
  readonly checks: readonly CheckState[];
  readonly steps: readonly Step[];
  /** Null when nothing is left to do. */
  readonly next: Step | null;
  /** Other cells that may be taken instead. */
  readonly others: readonly CellState[];
  /** Cells of the next one's round that may go on with it, itself among them; empty for a check. */
  readonly round: readonly CellState[];
  /** When the next may go on by the clock, ms; null when nothing is waited for. */
  readonly readyAt: number | null;
  /** After this the next may not go on as it is, ms; null where no window closes. */
  readonly closesAt: number | null;
  /** What lies under the next was ticked dull. */
  readonly isDull: boolean;
  readonly areas: readonly AreaOn[];
  /** Sprays that are on, and those the plan comes to: with extra coats, without those left out. */
  readonly done: number;
  readonly total: number;
  /** Everything seen, noted and found, in the order of time. */
  readonly history: readonly JobEvent[];
  /** The event an undo would take back; null when there is none. */
  readonly undoable: JobEvent | null;
  /** Sprays of cells that the plan has no more; they are on all the same. */
  readonly strays: readonly Laid[];
}

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

const isLaid = (c: CellRef): c is Laid => 'filmUm' in c;

/** A cell as the log keeps it. */
export const laidOf = (c: Cell): Laid => ({
  coatId: c.coatId,
  areaId: c.areaId,
  layerId: c.layerId,
  name: c.coat.name,
  coats: c.coats,
  filmUm: c.coat.filmUm,
  ...(c.spot ? { spot: c.spot } : {}),
});

/** A cell as an event names it, or as it was laid: nothing else of it is kept. */
export const namedOf = (c: CellRef | Laid): CellRef | Laid => ({
  coatId: c.coatId,
  areaId: c.areaId,
  ...(isLaid(c)
    ? {
        ...{ layerId: c.layerId, name: c.name, coats: c.coats, filmUm: c.filmUm },
        ...(c.spot ? { spot: c.spot } : {}),
      }
    : {}),
});

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
    undoable: kept.findLast((e) => UNDOABLE.includes(e.kind) && own(e)) ?? null,
    strays,
  };
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

function areaOn(
  areaId: string,
  states: readonly CellState[],
  sprayed: ReadonlyMap<string, { readonly laid: CellRef | Laid }>,
  byKey: ReadonlyMap<string, Cell>,
): AreaOn {
  const layers = new Map<string, { coats: number; planned: number; filmUm: number; plannedUm: number }>();
  const at = (layerId: string) => {
    const known = layers.get(layerId) ?? { coats: 0, planned: 0, filmUm: 0, plannedUm: 0 };
    layers.set(layerId, known);
    return known;
  };
  const own = states.filter((s) => s.cell.areaId === areaId);
  // Where it was made ground again, what lies below is film, and counts for the colour no more.
  const [anewOn, anewPlanned] = [
    own.findLastIndex((s) => s.cell.anew === true && !s.cell.spot && s.sprayedAt !== null),
    own.findLastIndex((s) => s.cell.anew === true && !s.cell.spot && s.leftOut === null),
  ];
  const buried = new Set(own.slice(0, Math.max(0, anewOn)).map((s) => cellKey(s.cell)));
  own.forEach(({ cell, leftOut }, i) => {
    // What goes on one place alone is that place's.
    if (leftOut !== null || cell.spot) return;
    if (i >= anewPlanned) at(cell.layerId).planned += cell.coats;
    at(cell.layerId).plannedUm += cell.coat.filmUm;
  });
  for (const [key, { laid }] of sprayed) {
    if (laid.areaId !== areaId) continue;
    // What the log keeps of it holds, whatever the plan says of that coat now.
    const cell = byKey.get(key);
    const on = isLaid(laid) && laid.layerId !== null ? laid : cell ? laidOf(cell) : null;
    // A log may have kept the coat of a mend without its place: the plan knows it.
    if (!on?.layerId || (on.spot ?? cell?.spot)) continue;
    if (!buried.has(key)) at(on.layerId).coats += on.coats;
    at(on.layerId).filmUm += on.filmUm;
  }
  const list = [...layers].map(([layerId, l]) => ({ layerId, ...l }));
  return {
    areaId,
    layers: list,
    filmUm: list.reduce((s, l) => s + l.filmUm, 0),
    plannedUm: list.reduce((s, l) => s + l.plannedUm, 0),
  };
}

/** A fault that was found at a coat on an area, and is neither mended nor put right since; null for none. */
export function foundOn(state: Pick<JobState, 'history'>, areaId: string): JobEvent | null {
  const here = state.history.filter((e) => e.cells.some((c) => c.areaId === areaId));
  const at = here.findLastIndex((e) => e.kind === 'fault' && e.checkId === null);
  const since = here.slice(at + 1);
  const isOver = since.some((e) => e.kind === 'mend' || (e.kind === 'note' && e.text.startsWith(PUT_RIGHT)));
  return at < 0 || isOver ? null : here[at]!;
}

/**
 * Coats of layers on one place: what its areas have, and what went on there alone since it was last ground.
 * @param areaIds areas the place lies on
 */
export function coatsAt(
  state: Pick<JobState, 'cells' | 'areas'>,
  layerIds: readonly string[],
  areaIds: readonly string[],
  spot: string,
): number {
  const on = (areaId: string): number => {
    const own = state.cells.filter((s) => s.cell.areaId === areaId && s.sprayedAt !== null);
    if (own.some((s) => s.cell.spot === spot))
      return own.reduce((sum, { cell }) => {
        if (cell.spot && cell.spot !== spot) return sum;
        return cell.anew ? 0 : sum + (layerIds.includes(cell.layerId) ? cell.coats : 0);
      }, 0);
    const area = state.areas.find((a) => a.areaId === areaId);
    return (area?.layers ?? []).reduce((sum, l) => sum + (layerIds.includes(l.layerId) ? l.coats : 0), 0);
  };
  return Math.max(0, ...areaIds.map(on));
}

/** Coats of a layer that are on, the least and the most over the areas that get it. */
export function coatsOn(
  state: JobState,
  layerId: string,
  areaIds?: readonly string[],
): { readonly least: number; readonly most: number } {
  const found = state.areas
    .filter((a) => !areaIds || areaIds.includes(a.areaId))
    .flatMap((a) => a.layers.filter((l) => l.layerId === layerId && (l.planned > 0 || l.coats > 0)));
  return found.length
    ? { least: Math.min(...found.map((l) => l.coats)), most: Math.max(...found.map((l) => l.coats)) }
    : { least: 0, most: 0 };
}

/** Film x area of a layer, planned and on, um m2 (that is ml of solids); by the m2 of each cell. */
export function solidsOn(
  state: JobState,
  of: (cell: Cell) => boolean,
): { readonly planned: number; readonly on: number } {
  let [planned, on] = [0, 0];
  for (const { cell, sprayedAt, leftOut } of state.cells) {
    if (!of(cell)) continue;
    const ml = cell.coat.filmUm * cell.areaM2;
    if (leftOut === null) planned += ml;
    if (sprayedAt !== null) on += ml;
  }
  return { planned, on };
}
