import { FAMILY_IDS, MEETINGS } from '@steady-gleam/core/finishes';
import { array, number, object, string, type InferType } from 'yup';
import { endpoint } from './endpoint';
import { trimmed, versionOrNew } from './figures';

/** Limits by angle and where they come from, edge to edge. */
const own = {
  own: array(
    object({
      aspecular: number()
        .typeError('An angle must be a number.')
        .min(-90, 'An angle is -90 degrees at least.')
        .max(180, 'An angle is 180 degrees at most.')
        .required('Say at which angle.'),
      limit: number()
        .typeError('A limit must be a number.')
        .min(0.2, 'A limit is at least 0.2 dE00.')
        .max(10, 'A limit is at most 10 dE00.')
        .required('Enter the limit.'),
    })
      .noUnknown()
      .required(),
  )
    .max(20, 'At most 20 limits.')
    .required(),
  source: trimmed().max(120, 'Keep the source under 120 letters.').default(''),
};

/** What the painter set of a job's limits; see the core's `MatchLimits`. */
export const limitsSchema = object({
  meeting: string()
    .oneOf([...MEETINGS])
    .required(),
  ...own,
}).noUnknown();

/** What a shop set of a family's limits: they stand for every job that has none of its own. */
export const familyLimitsSchema = object({
  family: string()
    .oneOf([...FAMILY_IDS])
    .required(),
  /** 0 while the shop set none. */
  version: versionOrNew,
  ...own,
}).noUnknown();
export type FamilyLimits = InferType<typeof familyLimitsSchema>;

export const limitsApi = {
  putFamily: endpoint({
    method: 'PUT',
    path: '/api/family-limits',
    body: familyLimitsSchema,
    reply: familyLimitsSchema,
  }),
} as const;
