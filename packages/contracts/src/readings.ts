import { array, number, object, string, type InferType } from 'yup';
import { READING_LIMITS as L } from '@steady-gleam/core';

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
  spot: string().trim().max(40, 'Keep the spot’s name under 40 letters.').required('Name the spot.'),
  incidence: finite('The lamp angle', 0, L.incidenceMax),
  aspecular: finite('The view angle', L.aspecularMin, L.aspecularMax),
  l: lightnessSchema,
  a: aSchema,
  b: bSchema,
});

export const READING_SOURCES = ['typed', 'csv', 'demo'] as const;

const coats = number().min(0, 'A rung has 0 coats or more.').max(12, 'A rung has 12 coats at most.');

/** A set of readings taken together; client-made id, append-only: the newest set of a kind and rung is in force. */
export const newReadingSetSchema = object({
  id: string().uuid().required(),
  kind: string()
    .oneOf(['target', 'rung'] as const)
    .required(),
  rungCoats: coats
    .nullable()
    .defined()
    .when('kind', {
      is: 'rung',
      then: (s) => s.required('Say how many coats this rung has.'),
      otherwise: (s) => s.oneOf([null], 'A target has no rung.'),
    }),
  source: string().oneOf(READING_SOURCES).required(),
  takenAt: string().datetime().required(),
  readings: array(readingSchema)
    .required()
    .min(1, 'Enter at least one angle.')
    .max(2000)
    .test('unique', 'The same spot and angle is given twice.', (list) => {
      const keys = (list ?? []).map((r) => `${r.spot}/${r.incidence}/${r.aspecular}`);
      return new Set(keys).size === keys.length;
    }),
}).noUnknown();

export const readingSetSchema = newReadingSetSchema;
export type ReadingSet = InferType<typeof readingSetSchema>;
