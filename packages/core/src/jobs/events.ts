import type { EyeView, Verdict } from '../letdown/eyeWords';
import type { Mend } from './mendSteps';

/** What one tap tells is told so far apart, ms: it stays in its order, and is known as one tap's. No hand taps as fast. */
export const TOLD_APART_MS = 1;

/** One coat on one area. */
export interface CellRef {
  readonly coatId: string;
  readonly areaId: string;
}

/** A cell as it was sprayed: what went on, so that the log says it whatever becomes of the plan. */
export interface Laid extends CellRef {
  /** Null in a log that was written before these were kept. */
  readonly layerId: string | null;
  readonly name: string;
  /** Coats of the layer it counts for; 0 for one that is not counted. */
  readonly coats: number;
  /** Dry, um. */
  readonly filmUm: number;
  /** Place it went on alone; left out or null where it went on the whole area. */
  readonly spot?: string | null;
}

/** What was seen at one place from one view. A null verdict without patch and photos takes an earlier one back. */
export interface Look {
  readonly spot: string;
  readonly view: EyeView;
  readonly verdict: Verdict | null;
  /** Which way its hue is off. */
  readonly hue?: string | null;
  /** Coats of the card whose contrast patch the one there looks like. */
  readonly patch: number | null;
  /** Another place of the object it was held against; left out or null for what has to be matched. */
  readonly against?: string | null;
  /** Two photos of one moment, by their ids: the place, and what it was held against. */
  readonly photos?: readonly string[] | null;
}

/** Kinds of events: each is something that happened. */
export const EVENT_KINDS = [
  'start',
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
  'photo',
  'undo',
] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

/**
 * Something that happened to a job, in the booth or told at the desk. Append-only; id and time are made where it happened.
 * `sprayed`, `dull`, `skip`: of its cells. `swap`: its cell is taken next. `extra`: a coat more of a layer on its cells, to be
 * sprayed. `check`: a check passed, or skipped with a reason as its text. `fault`: found at a check, or at a coat. `mend`:
 * a way out was chosen, to be run behind its cells. `undo`: takes back the event
 * its text names.
 */
export interface JobEvent {
  readonly id: string;
  /** ms since 1970. */
  readonly at: number;
  readonly kind: EventKind;
  readonly cells: readonly (CellRef | Laid)[];
  /** Layer that an extra coat is of, or that a look is at; null for the rest. */
  readonly layerId: string | null;
  readonly checkId: string | null;
  /** Of an extra coat, against a full one; of a look, what was on where that was typed. Null for the rest. */
  readonly coats: number | null;
  readonly look: Look | null;
  /** Left out or null for what is no mend. */
  readonly mend?: Mend | null;
  /** Text of a note, reason of a skip, id of a photo, id of the event an undo takes back. */
  readonly text: string;
}

/** An event of a kind with nothing said that it does not need. */
export const eventOf = (
  event: Pick<JobEvent, 'id' | 'at' | 'kind'> & Partial<Omit<JobEvent, 'id' | 'at' | 'kind'>>,
): JobEvent => ({ cells: [], layerId: null, checkId: null, coats: null, look: null, text: '', ...event });

/** An event without whatever is kept beside it: by a device, by the server. */
export const plainEvent = ({ id, at, kind, cells, layerId, checkId, coats, look, mend, text }: JobEvent): JobEvent => ({
  id,
  at,
  kind,
  cells,
  layerId,
  checkId,
  coats,
  look,
  ...(mend ? { mend } : {}),
  text,
});

/** Text of a spray that went on after its window had closed and the film was made ready for it. */
export const SCUFFED = 'scuffed';
/** Text of a coat more that is laid of the mix let down 1:1. */
export const LET_DOWN = 'let down 1:1';
/** How the text of a note begins that says a fault found at a coat was put right, without a mend. */
export const PUT_RIGHT = 'put right: ';
/** Text of cells that are left out since what is on is enough. */
export const ENOUGH = 'enough';

/** By time, then id; each once, and what an undo names taken out. An undo that is itself undone counts for nothing. */
export function inForce(events: readonly JobEvent[]): JobEvent[] {
  const sorted = [...new Map(events.map((e) => [e.id, e])).values()].sort(
    (a, b) => a.at - b.at || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0),
  );
  const undoOf = new Map<string, JobEvent[]>();
  for (const e of sorted) if (e.kind === 'undo') undoOf.set(e.text, [...(undoOf.get(e.text) ?? []), e]);
  const known = new Map<string, boolean>();
  // An event stands unless an undo that stands itself names it.
  const stands = (id: string): boolean => {
    const before = known.get(id);
    if (before !== undefined) return before;
    // Undos that name one another in a ring count for nothing.
    known.set(id, false);
    const now = !(undoOf.get(id) ?? []).some((u) => stands(u.id));
    known.set(id, now);
    return now;
  };
  return sorted.filter((e) => e.kind !== 'undo' && stands(e.id));
}

export const cellKey = (c: CellRef): string => JSON.stringify([c.coatId, c.areaId]);
