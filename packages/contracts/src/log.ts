import { STYLES, type StyleId } from '@steady-gleam/core/finishes';
import { EVENT_KINDS, WAY_KINDS, WORK_KINDS } from '@steady-gleam/core/jobs';
import type { EventKind, JobEvent, WayKind, WorkKind } from '@steady-gleam/core/jobs';
import { EYE_VIEWS, type EyeView } from '@steady-gleam/core/letdown';
import { array, boolean, number, object, string } from 'yup';
import { endpoint } from './endpoint';
import { figure, MOST_INTEGER, choiceOf, trimmed } from './figures';
import { mendReachSchema } from './plan';
import { seenFields } from './verdicts';

/** ms since 1970: the year 2200. */
const LATEST_AT = Date.UTC(2200, 0, 1);

const cell = object({
  coatId: string().max(200).required(),
  areaId: string().max(60).required(),
  /** What went on, of a spray; left out of everything else. */
  layerId: string().max(200).nullable().optional(),
  name: string().max(120, 'Keep the name under 120 letters.').optional(),
  coats: number().min(0).max(20).optional(),
  filmUm: figure('The film', 0, 2000, ' µm').optional(),
  /** Place it went on alone. */
  spot: string().max(40).nullable().optional(),
}).noUnknown();

const look = object({
  spot: trimmed().max(40, 'Keep the spot’s name under 40 letters.').defined(),
  ...seenFields,
  patch: number().min(0.25).max(20).nullable().defined(),
  /** Another place it was held against. */
  against: trimmed().max(40, 'Keep the spot’s name under 40 letters.').nullable().optional(),
  /** Two photos: the place, and what it was held against. */
  photos: array(string().uuid().required()).max(2, 'Two photos at most.').nullable().optional(),
}).noUnknown();

/** A step of a mend: work with or without a clock, or a coat of a layer on a reach. */
const mendStep = object({
  is: string()
    .oneOf(['work', 'coat'] as const)
    .required(),
  kind: string()
    .oneOf<WorkKind>([...WORK_KINDS])
    .when('is', { is: 'work', then: (f) => f.required(), otherwise: (f) => f.optional() }),
  text: string()
    .max(300)
    .when('is', { is: 'work', then: (f) => f.defined(), otherwise: (f) => f.optional() }),
  minutes: number()
    .min(0)
    .max(60_000)
    .when('is', { is: 'work', then: (f) => f.required(), otherwise: (f) => f.optional() }),
  layerId: string()
    .max(200)
    .when('is', { is: 'coat', then: (f) => f.required(), otherwise: (f) => f.optional() }),
  style: string()
    .oneOf<StyleId>(Object.keys(STYLES) as StyleId[])
    .when('is', { is: 'coat', then: (f) => f.required(), otherwise: (f) => f.optional() }),
  share: number()
    .min(0)
    .max(20)
    .when('is', { is: 'coat', then: (f) => f.required(), otherwise: (f) => f.optional() }),
  reach: mendReachSchema.optional().default(undefined),
  letDown: boolean().when('is', { is: 'coat', then: (f) => f.required(), otherwise: (f) => f.optional() }),
  anew: boolean().when('is', { is: 'coat', then: (f) => f.required(), otherwise: (f) => f.optional() }),
}).noUnknown();

/** A way out that was chosen, as it is run. */
const mend = object({
  way: string()
    .oneOf<WayKind>([...WAY_KINDS])
    .required(),
  spot: trimmed().max(40, 'Keep the spot’s name under 40 letters.').defined(),
  off: string().max(120).defined(),
  views: array(
    string()
      .oneOf<EyeView>([...EYE_VIEWS])
      .required(),
  )
    .required()
    .max(6),
  steps: array(mendStep.required()).required().min(1).max(40),
}).noUnknown();

const [MOST_CELLS, MOST_TEXT] = [200, 400] as const;

/**
 * Whether a stored event is plainly what {@link jobEventSchema} takes, without a look and a mend: most of a long log, told in a
 * hundredth of the time. False says nothing: then the schema decides.
 */
export function isPlainEvent(e: JobEvent): boolean {
  const isRef = (v: unknown, most: number) => typeof v === 'string' && v.length > 0 && v.length <= most;
  const isMaybe = (v: unknown) => v === null || (typeof v === 'string' && v.length <= 200);
  const isWithin = (v: unknown, most: number) => typeof v === 'number' && v >= 0 && v <= most;
  return (
    UUID.test(e.id) &&
    Number.isInteger(e.at) &&
    isWithin(e.at, LATEST_AT) &&
    EVENT_KINDS.includes(e.kind) &&
    isMaybe(e.layerId) &&
    isMaybe(e.checkId) &&
    (e.coats === null || isWithin(e.coats, 20)) &&
    e.look === null &&
    e.mend === null &&
    typeof e.text === 'string' &&
    e.text.length <= MOST_TEXT &&
    Array.isArray(e.cells) &&
    e.cells.length <= MOST_CELLS &&
    e.cells.every(
      (c: JobEvent['cells'][number] | null) =>
        c !== null &&
        isRef(c.coatId, 200) &&
        isRef(c.areaId, 60) &&
        Object.entries(c).every(([key, v]) => {
          if (key === 'coatId' || key === 'areaId') return true;
          if (key === 'layerId') return isMaybe(v);
          if (key === 'name') return typeof v === 'string' && v.length <= 120;
          if (key === 'coats') return isWithin(v, 20);
          if (key === 'filmUm') return isWithin(v, 2000);
          return key === 'spot' && (v === null || (typeof v === 'string' && v.length <= 40));
        }),
    )
  );
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-5][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/i;

/** One thing that happened to a job, in the booth or told at the desk; id and time are made there. */
const eventShape = object({
  id: string().uuid().required(),
  /** ms since 1970. */
  at: number().integer().min(0).max(LATEST_AT).required(),
  kind: string()
    .oneOf<EventKind>([...EVENT_KINDS])
    .required(),
  cells: array(cell.required()).required().max(MOST_CELLS),
  layerId: string().max(200).nullable().defined(),
  checkId: string().max(200).nullable().defined(),
  coats: number().min(0).max(20).nullable().defined(),
  look: look.nullable().default(null).defined(),
  mend: mend.nullable().default(null).defined(),
  text: string().max(MOST_TEXT, 'Keep the note under 400 letters.').defined(),
}).noUnknown();
export const jobEventSchema = choiceOf<JobEvent>()(eventShape);

/** An event as the server has it. */
export interface StoredEvent extends JobEvent {
  /** Where it stands in the order in which the log came in; the newest is the highest. */
  readonly sequence: number;
}

const storedEventSchema = choiceOf<StoredEvent>()(eventShape.shape({ sequence: number().integer().min(0).required() }));

/** Most events in a request. */
const EVENTS_AT_ONCE = 500;

const since = number().integer().min(0).max(MOST_INTEGER);
const events = array(storedEventSchema.required()).required();
/** Only what came in after an event is told; left out, the whole log. A number the log has not reached yet: the whole log too. */
const after = object({ since: since.optional() }).noUnknown();
/** What came in after an event is answered, also what others sent; without it only what was sent. */
const sent = object({
  events: array(jobEventSchema.required()).required().min(1).max(EVENTS_AT_ONCE),
  since: since.optional(),
}).noUnknown();

/**
 * The log of a job, and that of the run of a finish's card. Each event is stored once however often it is sent; all of a request or
 * none. Events come in the order of their sequence, so that a device asks only for what it has not got.
 */
export const logApi = {
  readLog: endpoint({ method: 'GET', path: '/api/jobs/:id/events', body: after, reply: events }),
  addEvents: endpoint({ method: 'POST', path: '/api/jobs/:id/events', body: sent, reply: events }),
  readCardLog: endpoint({ method: 'GET', path: '/api/finishes/:id/card/events', body: after, reply: events }),
  addCardEvents: endpoint({ method: 'POST', path: '/api/finishes/:id/card/events', body: sent, reply: events }),
} as const;
