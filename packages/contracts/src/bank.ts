import { array, number, object, string, type InferType } from 'yup';
import { endpoint } from './endpoint';
import { angleLabSchema } from './finishes';
import { aSchema, bSchema, lightnessSchema } from './readings';
import { READING_LIMITS as L } from '@steady-gleam/core/formats';

const id = string().uuid().required();

/** A reading the bank holds: a rung of a card in force or an earlier one, or the target of a finish. */
const bankReadingSchema = object({
  id,
  finishId: id,
  cardId: string().uuid().nullable().defined(),
  coats: number().nullable().defined(),
  angles: array(angleLabSchema.required()).required(),
}).noUnknown();

/** What is looked for: one colour or more, each at its own geometry. */
export const nearestQuerySchema = object({
  angles: array(
    object({
      incidence: number().typeError('The lamp angle must be a number.').min(0).max(L.incidenceMax).default(45),
      aspecular: number()
        .typeError('The view angle must be a number.')
        .min(L.aspecularMin)
        .max(L.aspecularMax)
        .required('The view angle is missing.'),
      l: lightnessSchema,
      a: aSchema,
      b: bSchema,
    })
      .required()
      .noUnknown(),
  )
    .required()
    .min(1, 'Give a reading at one angle or more.')
    .max(40, 'Forty angles at most.')
    .test('unique', 'The same angle is given twice.', (list) => {
      const keys = (list ?? []).map((g) => `${g?.incidence}/${g?.aspecular}`);
      return new Set(keys).size === keys.length;
    }),
  count: number().typeError('How many is a number.').integer().min(1).max(100).default(20),
}).noUnknown();

const nearestSchema = object({
  finishId: id,
  cardId: string().uuid().nullable().defined(),
  name: string().required(),
  /** Effect coats, a fraction between two rungs; null for what was matched without a rung near it. */
  coats: number().nullable().defined(),
  rungs: array(number().required()).required(),
  /** Largest and mean CIEDE2000 over the angles both have. */
  max: number().required(),
  mean: number().required(),
  shared: number().integer().required(),
  angles: array(angleLabSchema.required()).required(),
}).noUnknown();
export type Nearest = InferType<typeof nearestSchema>;

export const bankApi = {
  /** Everything the nearest is looked for among, so that a page can look while something moves. */
  readings: endpoint({
    method: 'GET',
    path: '/api/bank/readings',
    body: null,
    reply: object({ readings: array(bankReadingSchema.required()).required() }),
  }),
  nearest: endpoint({
    method: 'POST',
    path: '/api/bank/nearest',
    body: nearestQuerySchema,
    reply: object({
      found: array(nearestSchema.required()).required(),
      /** Readings that were looked through. */
      readings: number().integer().required(),
    }),
  }),
} as const;
