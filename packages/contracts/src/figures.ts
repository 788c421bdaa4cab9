import './locale';
import { lazy, number, object, string, type InferType, type ISchema, type Schema } from 'yup';

/** A figure within bounds, each with its sentence. @param unit said with the bounds, with a space before it. */
export const figure = (label: string, lo: number, hi: number, unit = '') =>
  number()
    .typeError(`${label} must be a number.`)
    .required(`${label} is missing.`)
    .min(lo, `${label} can’t be below ${lo}${unit}.`)
    .max(hi, `${label} can’t be above ${hi}${unit}.`);

/** A figure that may be left empty: null. */
export const maybeFigure = (label: string, lo: number, hi: number, unit = '') =>
  number()
    .typeError(`${label} must be a number, or empty.`)
    .nullable()
    .defined()
    .min(lo, `${label} can’t be below ${lo}${unit}.`)
    .max(hi, `${label} can’t be above ${hi}${unit}.`);

/** A text without the blanks around it; what is no text is left for the type's own sentence. */
export const trimmed = () => string().transform((v: unknown) => (typeof v === 'string' ? v.trim() : v));

/** Name of something of the shop. */
export const named = () => trimmed().required('Give it a name.').max(50, 'Keep the name under 50 letters.');

/** A moment as ISO 8601, one that there is: no 31st of February, no year beyond the clock's. */
export const moment = () =>
  string()
    .datetime()
    .test('real', 'This is no moment there is.', (v) => {
      if (v === undefined || v === null) return true;
      // The clock goes on from a 31st of February to a 3rd of March without a word.
      const [, year, month, day] = /^(\d{4})-(\d\d)-(\d\d)/.exec(v) ?? [];
      if (day === undefined || Number(day) > new Date(Date.UTC(Number(year), Number(month), 0)).getUTCDate())
        return false;
      const at = new Date(v).getTime();
      return at >= FIRST_MOMENT && at <= LAST_MOMENT;
    });
const [FIRST_MOMENT, LAST_MOMENT] = [Date.UTC(1900, 0, 1), Date.UTC(2200, 0, 1)];

/** The largest whole number a row keeps. */
export const MOST_INTEGER = 2_147_483_647;
/** Of a stored row; an edit that names another one is refused. */
export const version = number().integer().min(1).max(MOST_INTEGER).required();
/** The version beside what is put: 0 for something new. */
export const versionOrNew = number().integer().min(0).max(MOST_INTEGER).required();
export const withVersion = { version: versionOrNew };
/** Body of a removal. */
export const removal = object({ version }).noUnknown();

/**
 * An object whose keys are ids that only the data knows, all of one kind of value. Yup knows objects by their keys alone: it is
 * laid out anew for what comes, and that is why its type is said here.
 */
export const keyed = <T>(value: Schema<T>): Schema<Record<string, T>> =>
  schemaBy((given) =>
    object(Object.fromEntries(Object.keys((given as object | null) ?? {}).map((key) => [key, value]))),
  );

/**
 * A schema that is chosen by what comes. Yup's own answer to that is no schema by its type, though it is used as one everywhere, and
 * the choice can't be typed: what comes out of it is said here.
 */
export function schemaBy<T>(choose: (given: unknown) => ISchema<unknown>): Schema<T> {
  return lazy(choose) as unknown as Schema<T>;
}

/**
 * A schema as that of one of core's own types, which are read only: it does not compile where what the schema lets through is no such
 * thing, so that the two can't drift apart.
 */
export const schemaOf =
  <T>() =>
  <S extends Schema>(schema: InferType<S> extends T ? S : never): Typed<T> =>
    schema as Schema as Typed<T>;

/** A schema that stays one of its type where it is required: yup's own `required` of an unknown sort of schema comes to any. */
export type Typed<T> = { required(): Schema<T> } & Schema<T>;

type KeyOfAny<T> = T extends unknown ? keyof T : never;

/**
 * The same for a type in which one field says which others there are: yup's own type has all of them at once. Only the names of the
 * fields are held against one another here; that a body of each sort comes through is for tests.
 */
export const choiceOf =
  <T>() =>
  <S extends Schema>(schema: KeyOfAny<T> extends keyof InferType<S> ? S : never): Typed<T> =>
    schema as Schema as Typed<T>;
