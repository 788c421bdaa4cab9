import { CLEAR_STATES, type ClearState } from '@steady-gleam/core/finishes';
import { START_AREAS } from '@steady-gleam/core/jobs';
import { array, boolean, number, object, string, type InferType } from 'yup';
import { trimmed } from './figures';

const shapes = ['area', 'panel', 'cylinder', 'dome', 'tub', 'tube'] as const;
const measure = number().typeError('A number.').min(0.001, 'More than zero.').max(200, 'At most 200.');

/** What is looked at as one: a coach, a shell with its loose parts. */
export const jobObjectSchema = object({
  id: string().max(60).required(),
  name: trimmed().required('Name the object.').max(80, 'Keep it under 80 letters.'),
  /** Effect coats by finish, as the object's own target asks for; and when it is looked at. */
  counts: array(
    object({
      finishId: string().max(60).required(),
      coats: number()
        .typeError('Coats must be a number.')
        .min(0.25, 'A quarter coat at the least.')
        .max(14, 'At most 14 coats.')
        .nullable()
        .defined(),
      lookAfter: number()
        .typeError('Coats must be a number.')
        .min(0.25, 'Look after a quarter coat at the earliest.')
        .max(14, 'At most 14 coats.')
        .nullable()
        .defined(),
    })
      .noUnknown()
      .required(),
  )
    .required()
    .max(8),
}).noUnknown();
export const objectsSchema = array(jobObjectSchema.required())
  .min(1, 'Keep one object.')
  .max(12, 'Twelve objects at most.');

/** What is sprayed in one go: its shape for the area, its place in the booth for the order; metres. */
export const areaSchema = object({
  id: string().max(60).required(),
  name: trimmed().required('Name the area.').max(40, 'Keep it under 40 letters.'),
  shape: string().oneOf(shapes).required(),
  /** Measures of the shape by name; `area` in m2, the others in m. */
  measures: object({
    area: measure,
    width: measure,
    height: measure,
    diameter: measure,
    top: measure,
    bottom: measure,
    length: measure,
  }).noUnknown(),
  count: number()
    .typeError('A whole number.')
    .integer('A whole number.')
    .min(1, 'One or more.')
    .max(200, 'At most 200.')
    .required('A whole number.'),
  /** Where it hangs or lies in the booth; null until it is placed. */
  x: number().min(-50).max(50).nullable().default(null),
  y: number().min(-50).max(50).nullable().default(null),
  mounting: string()
    .oneOf(['object', 'stand'] as const)
    .default('object'),
  /** Jambs, edges and pockets are sprayed before the rest. */
  first: boolean().default(false),
  objectId: string().max(60).required('Say which object it belongs to.'),
  /** Null for the job's own finish. */
  finishId: string().max(60).nullable().default(null),
  /** The area it lies masked on, as a stripe or letters do; null for one of its own. */
  on: string().max(60).nullable().default(null),
  clear: string()
    .oneOf<ClearState>([...CLEAR_STATES])
    .default('cleared'),
})
  .noUnknown()
  .test('size', (area, context) =>
    Object.values(area.measures ?? {}).some((v) => v !== undefined)
      ? true
      : context.createError({ path: `${context.path}.measures.area`, message: 'Say how large it is.' }),
  );
export type Area = InferType<typeof areaSchema>;
export const areasSchema = array(areaSchema.required())
  .min(1, 'Keep one area.')
  .max(40, 'Forty areas at most; count alike ones together.')
  .test('on', (areas, context) => {
    const list = (areas ?? []).filter(Boolean);
    const at = list.findIndex((a) => a.on && list.find((b) => b.id === a.on)?.on !== null);
    return at < 0
      ? true
      : context.createError({
          path: `${context.path}[${at}].on`,
          message: 'What it lies on is not here any more, or is a stripe itself; choose another.',
        });
  });
export type JobObjectRow = InferType<typeof jobObjectSchema>;

const startAreas = START_AREAS.map((a) => areaSchema.cast(a));
/** The areas of a job; before any were entered one of two square metres. */
export const areasOf = (job: { readonly areas: readonly Area[] | null }): readonly Area[] => job.areas ?? startAreas;
