import { STYLES, type StyleId } from '@steady-gleam/core/finishes';
import { EVENT_KINDS, WAY_KINDS, WORK_KINDS } from '@steady-gleam/core/jobs';
import type { EventKind, JobEvent, WayKind, WorkKind } from '@steady-gleam/core/jobs';
import { EYE_VIEWS, type EyeView } from '@steady-gleam/core/letdown';
import { array, boolean, number, object, string, type Schema } from 'yup';
import { endpoint } from './endpoint';
import { figure, trimmed } from './figures';
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

/** One thing that happened to a job, in the booth or told at the desk; id and time are made there. */
export const jobEventSchema = object({
  id: string().uuid().required(),
  /** ms since 1970. */
  at: number().integer().min(0).max(LATEST_AT).required(),
  kind: string()
    .oneOf<EventKind>([...EVENT_KINDS])
    .required(),
  cells: array(cell.required()).required().max(200),
  layerId: string().max(200).nullable().defined(),
  checkId: string().max(200).nullable().defined(),
  coats: number().min(0).max(20).nullable().defined(),
  look: look.nullable().default(null).defined(),
  mend: mend.nullable().default(null).defined(),
  text: string().max(400, 'Keep the note under 400 letters.').defined(),
}).noUnknown() as unknown as Schema<JobEvent>;

const events = array(jobEventSchema.required()).required();
const sent = object({ events: array(jobEventSchema.required()).required().min(1).max(500) }).noUnknown();

/** The log of a job, and that of the run of a finish's card. Each event is stored once however often it is sent; all of a request or none. */
export const logApi = {
  readLog: endpoint({ method: 'GET', path: '/api/jobs/:id/events', body: null, reply: events }),
  addEvents: endpoint({ method: 'POST', path: '/api/jobs/:id/events', body: sent, reply: events }),
  readCardLog: endpoint({ method: 'GET', path: '/api/finishes/:id/card/events', body: null, reply: events }),
  addCardEvents: endpoint({ method: 'POST', path: '/api/finishes/:id/card/events', body: sent, reply: events }),
} as const;
