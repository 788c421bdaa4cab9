import { ValidationError, type Schema } from 'yup';

/** What a schema says of a value as the server asks it, by path: the first sentence of each; nothing where it is taken. */
export function said(schema: Schema, value: unknown): Record<string, string> {
  try {
    schema.validateSync(value, { abortEarly: false, stripUnknown: false });
    return {};
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const found: Record<string, string> = {};
    for (const e of error.inner.length ? error.inner : [error]) found[e.path ?? ''] ??= e.message;
    return found;
  }
}
