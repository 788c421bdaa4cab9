import { FAMILY_IDS, type FinishFamily } from '@steady-gleam/core/finishes';
import { array, boolean, number, object, string, type InferType } from 'yup';
import { earlierCardSchema } from './cards';
import { endpoint } from './endpoint';
import { removal, trimmed, version } from './figures';
import { recipeSchema, stackLayerSchema } from './layers';

const id = string().uuid().required();

export const families: readonly FinishFamily[] = FAMILY_IDS;

/** What it has to match; empty for a look that is designed. */
export const matching = trimmed().max(160, 'Keep it under 160 letters.').default('');
const finishName = trimmed().max(80, 'Keep the name under 80 letters.').required('Give the finish a name.');
const finishCode = trimmed().max(24, 'Keep the code under 24 letters.');

/** A finish, as pickers name it. */
export const finishNameSchema = object({ id, name: string().required(), mixId: string().required() }).noUnknown();
export type FinishName = InferType<typeof finishNameSchema>;

const userSchema = object({
  id,
  piece: string().required(),
  status: string().required(),
  /** Taken out of the list; it can be put back. */
  removed: boolean().required(),
}).noUnknown();

/** What is matched and what makes it. It outlives the jobs that use it. */
export const finishSchema = object({
  id,
  name: string().required(),
  /** The shop's own code; empty where it has none. */
  code: string().defined(),
  matching: string().defined(),
  family: string()
    .oneOf<FinishFamily>([...families])
    .nullable()
    .defined(),
  mixId: string().nullable().defined(),
  pick: recipeSchema.nullable().defined(),
  layers: array(stackLayerSchema.required()).nullable().defined(),
  invented: boolean().required(),
  version,
  createdAt: string().datetime().required(),
  updatedAt: string().datetime().required(),
}).noUnknown();
export type Finish = InferType<typeof finishSchema>;

/** Jobs that use a finish, and its cards that are not in force. */
const standing = {
  jobs: array(userSchema.required()).required(),
  cards: array(earlierCardSchema.required()).required(),
};
export const finishOfJobSchema = finishSchema.shape(standing);

export const finishSummarySchema = finishSchema.shape({
  ...standing,
  /** Colour of the target that is in force, at the angle nearest to 45 degrees; null when nothing was read. */
  lab: array(number().required()).length(3).nullable().default(null).defined(),
  targetAngles: number().integer().required(),
  /** Rungs of the card in force that were read, by instrument or by eye. */
  rungsRead: number().integer().required(),
  /** Finished jobs that used it. */
  proven: number().integer().required(),
});
export type FinishSummary = InferType<typeof finishSummarySchema>;

export const finishesApi = {
  /** The latest changed first. */
  list: endpoint({
    method: 'GET',
    path: '/api/finishes',
    body: null,
    reply: array(finishSummarySchema.required()).required(),
  }),
  read: endpoint({ method: 'GET', path: '/api/finishes/:id', body: null, reply: finishSummarySchema }),
  rename: endpoint({
    method: 'PATCH',
    path: '/api/finishes/:id',
    body: object({ version, name: finishName.optional(), code: finishCode.optional() }).noUnknown(),
    reply: finishSchema,
  }),
  /** Refused while a job uses it, one that was taken out too. */
  remove: endpoint({ method: 'DELETE', path: '/api/finishes/:id', body: removal, reply: object({}) }),
} as const;
