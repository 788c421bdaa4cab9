import './locale';
import { number, string } from 'yup';

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
