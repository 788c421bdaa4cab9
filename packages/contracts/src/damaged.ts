import { array, object, string, type InferType } from 'yup';
import { endpoint } from './endpoint';

/** A stored row that today's program can't read: left out of its list, named here. */
export const damagedSchema = object({
  what: string()
    .oneOf(['job', 'finish', 'product', 'gun', 'material', 'batch', 'event'] as const)
    .required(),
  id: string().required(),
  /** What it was called, as far as that can be read. */
  name: string().defined(),
}).noUnknown();
export type Damaged = InferType<typeof damagedSchema>;

export const damagedApi = {
  /** Rows of every kind that can't be read. */
  list: endpoint({
    method: 'GET',
    path: '/api/damaged',
    body: null,
    reply: array(damagedSchema.required()).required(),
  }),
} as const;
