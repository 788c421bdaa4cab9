/** Text of a spray that went on after its window had closed and the film was made ready for it. */
export const SCUFFED = 'scuffed';

/** Something that happened in the booth. Append-only; ids and times are made where it happened. */
export interface BoothEvent {
  readonly id: string;
  /** ms since 1970. */
  readonly at: number;
  readonly kind: 'start' | 'sprayed' | 'dull' | 'swap' | 'note' | 'photo' | 'undo';
  /** Coat and piece it concerns; null where it concerns none. */
  readonly coatId: string | null;
  readonly pieceId: string | null;
  /** Text of a note, id of a photo, id of the event an undo takes back. */
  readonly text: string;
}

/** One spray of one piece: coats are run through one after the other, pieces in order within a coat. */
export interface BoothTask {
  readonly coatId: string;
  readonly pieceId: string;
  /** Least wait before the next coat on the same piece, minutes: its flash today, longer before clear. */
  readonly waitMinutes: number;
  /** When its recoat window closes, minutes after it was sprayed; null where it has none. */
  readonly closesMinutes: number | null;
}

export interface BoothState {
  readonly started: number | null;
  /** When a task was sprayed, by `coat|piece`. */
  readonly sprayed: ReadonlyMap<string, number>;
  readonly dull: ReadonlySet<string>;
  /** The next task; null when all are sprayed. */
  readonly next: BoothTask | null;
  /** The same piece's coat below it, whose flash is waited for; null for a first coat. */
  readonly below: BoothTask | null;
  /** When the next may go on by the clock, ms; null when nothing is waited for. */
  readonly readyAt: number | null;
  /** After this the next may not go on as it is, ms: the window of the coat below has closed. Null where it has none. */
  readonly closesAt: number | null;
  readonly isDull: boolean;
  readonly notes: readonly BoothEvent[];
  /** The event an undo would take back; null when there is none. */
  readonly undoable: BoothEvent | null;
  /** Tasks that were sprayed. */
  readonly done: number;
  /** Sprays of coats or pieces that are no longer among the tasks; they stay in the log. */
  readonly strays: number;
}

export const taskKey = (t: { readonly coatId: string; readonly pieceId: string }): string => `${t.coatId}|${t.pieceId}`;

/**
 * Where a booth run stands, from its events in any order: sorted by their time, then by id, each counted once. An undo takes
 * back the event it names; a swap brings a piece to the front within the coat that is being sprayed.
 * @param own whether an event was made on this device: only such a one is offered to be taken back
 */
export function foldRun(
  tasks: readonly BoothTask[],
  events: readonly BoothEvent[],
  own: (event: BoothEvent) => boolean = () => true,
): BoothState {
  const once = new Map(events.map((e) => [e.id, e]));
  const sorted = [...once.values()].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
  const undone = new Set(sorted.filter((e) => e.kind === 'undo').map((e) => e.text));
  const kept = sorted.filter((e) => e.kind !== 'undo' && !undone.has(e.id));
  const sprayed = new Map<string, number>();
  const dull = new Set<string>();
  const front = new Map<string, string>();
  let started: number | null = null;
  for (const e of kept) {
    const key = e.coatId && e.pieceId ? taskKey({ coatId: e.coatId, pieceId: e.pieceId }) : null;
    if (e.kind === 'start') started ??= e.at;
    else if (e.kind === 'sprayed' && key) sprayed.set(key, e.at);
    else if (e.kind === 'dull' && key) dull.add(key);
    else if (e.kind === 'swap' && e.coatId && e.pieceId) front.set(e.coatId, e.pieceId);
  }
  const left = tasks.filter((t) => !sprayed.has(taskKey(t)));
  const coat = left[0]?.coatId;
  const next = left.find((t) => t.coatId === coat && t.pieceId === front.get(t.coatId)) ?? left[0] ?? null;
  const below = next
    ? (tasks
        .slice(
          0,
          tasks.findIndex((t) => t.coatId === next.coatId),
        )
        .findLast((t) => t.pieceId === next.pieceId) ?? null)
    : null;
  const at = below ? sprayed.get(taskKey(below)) : undefined;
  const undoable =
    kept.findLast(
      (e) => (e.kind === 'sprayed' || e.kind === 'dull' || e.kind === 'swap' || e.kind === 'note') && own(e),
    ) ?? null;
  return {
    started,
    sprayed,
    dull,
    next,
    below,
    readyAt: below && at !== undefined ? at + below.waitMinutes * 60_000 : null,
    closesAt: below && at !== undefined && below.closesMinutes !== null ? at + below.closesMinutes * 60_000 : null,
    isDull: !!below && dull.has(taskKey(below)),
    notes: kept.filter((e) => e.kind === 'note' || e.kind === 'photo'),
    undoable,
    done: tasks.length - left.length,
    strays: sprayed.size - (tasks.length - left.length),
  };
}
