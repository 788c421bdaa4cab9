/** Something the painter does, or the piece waits for in the oven; minutes. */
export interface TimeTask {
  readonly id: string;
  /** Coat and piece of a spray; null for what is none. */
  readonly coatId: string | null;
  readonly areaId: string | null;
  readonly minutes: number;
  /** Keeps the painter busy; a bake does not. */
  readonly painter: boolean;
  /** What must be over before it, by at least `min` and, where a window closes, at most `max` minutes. */
  readonly after: readonly { readonly id: string; readonly min: number; readonly max: number | null }[];
  /** Cup it is sprayed from; mixed anew when its pot life would end before the task. */
  readonly batch: string | null;
}

export interface TimeBatch {
  readonly id: string;
  /** As the cup is called. */
  readonly name: string;
  readonly mixMinutes: number;
  /** Null for what does not set. */
  readonly potMinutes: number | null;
}

export interface PlannedTask {
  readonly id: string;
  readonly kind: 'task' | 'mix';
  readonly coatId: string | null;
  readonly areaId: string | null;
  /** Cup that is mixed; null for a task. */
  readonly batch: TimeBatch | null;
  readonly start: number;
  readonly end: number;
  /** It has happened; times are the real ones. */
  readonly done: boolean;
}

export interface TimeConflict {
  readonly task: string;
  readonly kind: 'recoat' | 'pot life';
  /** Minutes over. */
  readonly by: number;
  /** Task whose window closed, or the batch. */
  readonly of: string;
}

export interface Timeline {
  readonly tasks: readonly PlannedTask[];
  readonly conflicts: readonly TimeConflict[];
  readonly end: number;
}

export interface TimelineInput {
  /** In the order the painter would take them; a task comes after those it waits for. */
  readonly tasks: readonly TimeTask[];
  readonly batches: readonly TimeBatch[];
  /** Now, minutes; nothing that is still to be done starts earlier. */
  readonly now: number;
  /** What has happened, by task: when it ended; and batches that were mixed, when. */
  readonly done: ReadonlyMap<string, number>;
  readonly mixed: ReadonlyMap<string, number>;
}

/**
 * Clock times for one painter: of the tasks whose waits are known, the one that can start first is taken, ties in the given
 * order; then again strictly in the given order, and the better of both is kept (fewer conflicts, then earlier end). Cups are
 * mixed just before they are needed, and again when one would set. A closed window is a conflict, never hidden.
 */
export function planTimeline(q: TimelineInput): Timeline {
  const greedy = list(q, false);
  const strict = list(q, true);
  const worse = (t: Timeline) => t.conflicts.length * 1e6 + t.end;
  return worse(greedy) < worse(strict) ? greedy : strict;
}

const taskOf = ({ id, coatId, areaId }: TimeTask) => ({ id, kind: 'task' as const, coatId, areaId, batch: null });

function list(q: TimelineInput, strict: boolean): Timeline {
  const planned = new Map<string, PlannedTask>();
  const mixes: PlannedTask[] = [];
  const conflicts: TimeConflict[] = [];
  const mixedAt = new Map(q.mixed);
  const batches = new Map(q.batches.map((b) => [b.id, b]));
  let painterFree = q.now;
  for (const t of q.tasks) {
    const ended = q.done.get(t.id);
    if (ended !== undefined) planned.set(t.id, { ...taskOf(t), start: ended - t.minutes, end: ended, done: true });
  }
  const left = q.tasks.filter((t) => !q.done.has(t.id));
  let mixCount = 0;
  while (left.length) {
    let pick = -1;
    let pickStart = Infinity;
    for (const [i, t] of left.entries()) {
      if (t.after.some((a) => !planned.has(a.id))) continue;
      const ready = Math.max(q.now, ...t.after.map((a) => planned.get(a.id)!.end + a.min));
      const start = t.painter ? Math.max(ready, painterFree) : ready;
      if (start < pickStart - 1e-9) [pick, pickStart] = [i, start];
      if (strict) break;
    }
    // Nothing can start when a wait names a task that is not there: take it as it comes.
    if (pick < 0) [pick, pickStart] = [0, painterFree];
    const [t] = left.splice(pick, 1) as [TimeTask];
    let start = pickStart;
    const batch = t.batch === null ? undefined : batches.get(t.batch);
    if (batch) {
      const known = mixedAt.get(batch.id);
      const sets = (at: number) => (batch.potMinutes === null ? Infinity : at + batch.potMinutes);
      if (known === undefined || start + t.minutes > sets(known) + 1e-9) {
        // In the wait before it when there is one, so that the cup is fresh.
        const mixStart = Math.max(painterFree, start - batch.mixMinutes);
        const mixEnd = mixStart + batch.mixMinutes;
        mixes.push({
          id: `mix ${++mixCount} of ${batch.id}`,
          kind: 'mix',
          coatId: null,
          areaId: null,
          batch,
          start: mixStart,
          end: mixEnd,
          done: false,
        });
        mixedAt.set(batch.id, mixEnd);
        start = Math.max(start, mixEnd);
        painterFree = Math.max(painterFree, mixEnd);
        if (start + t.minutes > sets(mixEnd) + 1e-9)
          conflicts.push({ task: t.id, kind: 'pot life', by: start + t.minutes - sets(mixEnd), of: batch.id });
      }
    }
    for (const a of t.after) {
      const before = planned.get(a.id);
      if (before && a.max !== null && start > before.end + a.max + 1e-9)
        conflicts.push({ task: t.id, kind: 'recoat', by: start - before.end - a.max, of: a.id });
    }
    const end = start + t.minutes;
    planned.set(t.id, { ...taskOf(t), start, end, done: false });
    if (t.painter) painterFree = Math.max(painterFree, end);
  }
  const tasks = [...planned.values(), ...mixes].sort((a, b) => a.start - b.start || a.end - b.end);
  return { tasks, conflicts, end: Math.max(q.now, ...tasks.map((t) => t.end)) };
}

/**
 * The least time really kept after each coat before what follows it on the same piece, minutes, by coat; nothing for a coat that
 * nothing follows.
 * @param tasks with their waits, @param line as they were planned
 */
export function keptGaps(tasks: readonly TimeTask[], line: Timeline): ReadonlyMap<string, number> {
  const of = new Map(line.tasks.map((t) => [t.id, t]));
  const gaps = new Map<string, number>();
  for (const t of tasks)
    for (const a of t.after) {
      const [before, after] = [of.get(a.id), of.get(t.id)];
      // A look in between is not what the coat waits for.
      if (!before?.coatId || !after || (t.coatId === null && t.painter)) continue;
      gaps.set(before.coatId, Math.min(gaps.get(before.coatId) ?? Infinity, after.start - before.end));
    }
  return gaps;
}
