import { EYE_VIEWS, EYE_WORDS, VERDICTS, type EyeView, type Verdict } from '@steady-gleam/core/letdown';
import { number, object, string, type InferType } from 'yup';
import { moment } from './figures';
import { endpoint } from './endpoint';

/** What is said from one place to stand: of a rung, and of a place on the job. */
export const seenFields = {
  view: string()
    .oneOf<EyeView>([...EYE_VIEWS])
    .required(),
  verdict: string()
    .nullable()
    .defined()
    .oneOf<Verdict | null>([...VERDICTS, null]),
  /** A word beside the verdict: which way its hue is off, and the like. */
  hue: string()
    .nullable()
    .default(null)
    .oneOf([...EYE_WORDS, null]),
};

/** How a rung looks beside the target; client-made id, append-only. A null verdict takes one back. */
export const verdictEventSchema = object({
  id: string().uuid().required(),
  /** Coats of the rung. */
  coats: number()
    .typeError('Coats must be a number.')
    .min(0.25, 'Something must have been sprayed.')
    .max(20, 'At most 20 coats.')
    .required(),
  ...seenFields,
  takenAt: moment().required(),
}).noUnknown();
export type VerdictEvent = InferType<typeof verdictEventSchema>;

export const verdictsApi = {
  add: endpoint({
    method: 'POST',
    path: '/api/finishes/:id/verdicts',
    body: verdictEventSchema,
    reply: verdictEventSchema,
  }),
} as const;
