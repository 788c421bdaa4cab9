import { FAMILY_IDS, type FinishFamily } from '@steady-gleam/core/finishes';
import { array, boolean, number, object, string, tuple, type InferType } from 'yup';
import { endpoint } from './endpoint';
import { trimmed } from './figures';
import { jobSchema } from './jobs';
import { readingSchema } from './readings';

/** What the simulated instrument is held on: what has to be matched, a chip, a rung of the card, or a place on the job. */
const heldSchema = object({
  on: string()
    .oneOf(['target', 'chip', 'rung', 'spot'] as const, 'Say what the instrument is held on.')
    .required(),
  /** Name of a chip, or of the place. */
  label: trimmed().max(40, 'Keep the name under 40 letters.').default(''),
  /** Of a rung; 0 for the bare ground. */
  coats: number().min(0).max(12).nullable().default(null),
  state: string()
    .oneOf(['wet', 'cleared'] as const)
    .default('cleared'),
  /** Of a place; null for the first object, and all its areas. */
  objectId: string().max(60).nullable().default(null),
  areaIds: array(string().max(60).required()).max(60).default([]),
}).noUnknown();
export type HeldAsk = InferType<typeof heldSchema>;

/** `said`: what is wrong and what to do, where nothing was read. */
const answerSchema = object({
  is: string()
    .oneOf(['read', 'wants white', 'failed'] as const)
    .required(),
  said: string().defined(),
  readings: array(readingSchema.required()).required(),
}).noUnknown();
export type InstrumentSaid = InferType<typeof answerSchema>;

/** True colours at the five angles. */
const labs = array(tuple([number().required(), number().required(), number().required()]).required()).required();

const endedSchema = object({
  name: string().required(),
  /** Counts of the nominal hand. */
  film: number().required(),
  end: string()
    .oneOf(['in', 'over', 'short', 'near'] as const)
    .required(),
  labs,
  differences: array(number().required()).required(),
}).noUnknown();

/** What stood behind the curtain; see the core's `Curtain`. */
const curtainSchema = object({
  hand: number().required(),
  made: object({
    groundId: string().required(),
    strength: number().required(),
    style: string().required(),
    film: number().required(),
    labs,
  })
    .noUnknown()
    .required(),
  window: tuple([number().required(), number().required()]).nullable().defined(),
  best: number().required(),
  objects: array(endedSchema.required()).required(),
  nominal: endedSchema.shape({ coats: number().required() }).required(),
}).noUnknown();
export type CurtainSaid = InferType<typeof curtainSchema>;

export const tryOutApi = {
  /** A job behind a curtain: hidden hand, hidden pot, a finish that someone else made. */
  begin: endpoint({
    method: 'POST',
    path: '/api/try-outs',
    body: object({
      id: string().uuid().required(),
      family: string()
        .oneOf<FinishFamily>([...FAMILY_IDS], 'Choose the finish family.')
        .required('Choose the finish family.'),
      /** The same seed hides the same; drawn when left out. */
      seed: number().integer().min(0).max(2_147_483_647).optional(),
    }).noUnknown(),
    reply: jobSchema,
  }),
  /** The simulated instrument reads; nothing is stored of it until it is kept as any reading is. */
  read: endpoint({ method: 'POST', path: '/api/jobs/:id/instrument', body: heldSchema, reply: answerSchema }),
  white: endpoint({ method: 'POST', path: '/api/jobs/:id/instrument/white', body: null, reply: object({}) }),
  /** From then on everything of it may be known. */
  lift: endpoint({
    method: 'POST',
    path: '/api/jobs/:id/curtain',
    body: object({ isSure: boolean().oneOf([true]).required() }).noUnknown(),
    reply: jobSchema,
  }),
  /** Traces a part of what is behind it, a second's work or so; all of them before it is asked for. */
  part: endpoint({
    method: 'POST',
    path: '/api/jobs/:id/curtain/parts',
    body: object({ part: number().integer().min(0).max(20).required() }).noUnknown(),
    reply: object({ parts: number().integer().required() }),
  }),
  curtain: endpoint({ method: 'GET', path: '/api/jobs/:id/curtain', body: null, reply: curtainSchema }),
} as const;
