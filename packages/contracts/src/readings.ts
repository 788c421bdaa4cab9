import { array, boolean, number, object, string, type InferType } from 'yup';
import { READING_LIMITS as L } from '@steady-gleam/core/formats';
import { endpoint } from './endpoint';
import { moment, trimmed } from './figures';

const finite = (label: string, lo: number, hi: number) =>
  number()
    .typeError(`${label} must be a number, with a decimal point.`)
    .required(`${label} is missing.`)
    .min(lo, `${label} can't be below ${lo}.`)
    .max(hi, `${label} can't be above ${hi}.`);

/** L* of a reading: metallics go above 100 near the mirror. */
export const lightnessSchema = finite('L*', L.lMin, L.lMax);
export const aSchema = finite('a*', -L.abMax, L.abMax);
export const bSchema = finite('b*', -L.abMax, L.abMax);

export const readingSchema = object({
  spot: trimmed().max(40, 'Keep the spot’s name under 40 letters.').required('Name the spot.'),
  incidence: finite('The lamp angle', 0, L.incidenceMax),
  aspecular: finite('The view angle', L.aspecularMin, L.aspecularMax),
  l: lightnessSchema,
  a: aSchema,
  b: bSchema,
});

export const READING_SOURCES = [
  'typed',
  'csv',
  'cgats',
  'xml',
  'photo',
  'chip',
  'designed',
  'demo',
  'keys',
  'simulated',
] as const;

const coats = number().min(0, 'A rung has 0 coats or more.').max(12, 'A rung has 12 coats at most.');

/** A set of readings taken together; client-made id, append-only: the newest set of a kind and rung is in force. */
export const newReadingSetSchema = object({
  id: string().uuid().required(),
  kind: string()
    .oneOf(['target', 'rung', 'chip', 'spot'] as const)
    .required(),
  rungCoats: coats
    .nullable()
    .defined()
    .when('kind', {
      is: (kind: string) => kind === 'rung' || kind === 'spot',
      then: (s) => s.required('Say how many coats are there.'),
      otherwise: (s) => s.oneOf([null], 'Only a rung or a place on the job has coats.'),
    }),
  /** Name of a variant chip or of a place on the job. */
  label: trimmed()
    .max(40, 'Keep the name under 40 letters.')
    .default('')
    .when('kind', {
      is: (kind: string) => kind === 'chip' || kind === 'spot',
      then: (s) => s.required('Give it a name, for instance “standard” or “left door”.'),
    }),
  /** Object a target or a place on the job is of; null for the job as a whole, or a card. */
  objectId: string().max(60).nullable().default(null),
  /** A rung read wet is not what it will be under clear. */
  state: string()
    .oneOf(['cleared', 'wet'] as const)
    .default('cleared'),
  /** Stated uncertainty of a photo, Lab units; null for an instrument. */
  doubt: number().min(0).max(50).nullable().default(null),
  source: string().oneOf(READING_SOURCES).required(),
  /** The file of the watched folder it came in: taken with it, once. Of no use afterwards, and not told again. */
  inboxId: string().uuid().optional(),
  takenAt: moment().required(),
  readings: array(readingSchema.required())
    .required()
    .min(1, 'Enter at least one angle.')
    .max(2000)
    .test('unique', 'The same spot and angle is given twice.', (list) => {
      const keys = (list ?? []).map((r) => (r ? `${r.spot}/${r.incidence}/${r.aspecular}` : null));
      return new Set(keys).size === keys.length;
    }),
}).noUnknown();

export const readingSetSchema = newReadingSetSchema;
export type ReadingSet = InferType<typeof readingSetSchema>;

export const readingsApi = {
  /** Targets, rungs and chips of a finish. */
  addToFinish: endpoint({
    method: 'POST',
    path: '/api/finishes/:id/readings',
    body: newReadingSetSchema,
    reply: readingSetSchema,
  }),
  /** Places on a job, and targets of its single objects. */
  addToJob: endpoint({
    method: 'POST',
    path: '/api/jobs/:id/readings',
    body: newReadingSetSchema,
    reply: readingSetSchema,
  }),
  /** A set of readings that was entered wrongly is taken out, or put back; what it replaced goes with it. */
  remove: endpoint({
    method: 'PUT',
    path: '/api/readings/:id/removed',
    body: object({ removed: boolean().required() }).noUnknown(),
    reply: object({}),
  }),
} as const;

/** Of a job, not of the finish: a place on it, or the target of one of its objects. */
export const isOfJob = (set: Pick<ReadingSet, 'kind' | 'objectId'>): boolean =>
  set.kind === 'spot' || (set.kind === 'target' && set.objectId !== null);
