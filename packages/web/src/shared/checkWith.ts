import { ValidationError, type Schema } from 'yup';

/** Sentences by the path of the field they stand at: `additives.0.name`. */
export type Faults = Readonly<Record<string, string>>;

/** What was typed as it is kept, or what stands in its way. */
export type Checked<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly faults: Faults };

/** A schema's path as a form's: `areas[0].name` is `areas.0.name`. */
export const formPath = (path: string): string => path.replace(/\[(\d+)\]/g, '.$1');

/**
 * Holds a candidate against a schema.
 * @param fieldOf the field that a path of the schema stands for, where it has another name in the form
 * @returns what is kept, or the first sentence for every field
 */
export function checkWith<T>(schema: Schema<T>, candidate: unknown, fieldOf = formPath): Checked<T> {
  try {
    return { ok: true, value: schema.validateSync(candidate, { abortEarly: false }) };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const faults: Record<string, string> = {};
    for (const e of error.inner.length ? error.inner : [error]) faults[fieldOf(e.path ?? '')] ??= e.message;
    return { ok: false, faults };
  }
}
