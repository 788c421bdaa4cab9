import { EVENT_KINDS, type EventKind, type JobEvent } from '@steady-gleam/core/jobs';
import { array, number, object, string, type Schema } from 'yup';
import { endpoint } from './endpoint';
import { figure, trimmed } from './figures';
import { seenFields } from './verdicts';

const cell = object({
  coatId: string().max(200).required(),
  areaId: string().max(60).required(),
  /** What went on, of a spray; left out of everything else. */
  layerId: string().max(200).nullable().optional(),
  name: string().max(120, 'Keep the name under 120 letters.').optional(),
  coats: number().min(0).max(20).optional(),
  filmUm: figure('The film', 0, 2000, ' µm').optional(),
}).noUnknown();

const look = object({
  spot: trimmed().max(40, 'Keep the spot’s name under 40 letters.').defined(),
  ...seenFields,
  patch: number().min(0.25).max(20).nullable().defined(),
}).noUnknown();

/** One thing that happened to a job, in the booth or told at the desk; id and time are made there. */
export const jobEventSchema = object({
  id: string().uuid().required(),
  /** ms since 1970. */
  at: number().integer().min(0).required(),
  kind: string()
    .oneOf<EventKind>([...EVENT_KINDS])
    .required(),
  cells: array(cell.required()).required().max(200),
  layerId: string().max(200).nullable().defined(),
  checkId: string().max(200).nullable().defined(),
  coats: number().min(0).max(20).nullable().defined(),
  look: look.nullable().default(null).defined(),
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
