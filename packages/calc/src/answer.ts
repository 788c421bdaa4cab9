import { oddIn } from '@steady-gleam/contracts';
import { calcSchemas, type CalcName } from './schemas';
import { CoreError } from '@steady-gleam/core/errors';
import { ValidationError } from 'yup';
import { operations } from './operations';

export interface Reply {
  readonly id: unknown;
  readonly ok: boolean;
  readonly result?: unknown;
  readonly error?: { readonly code: string; readonly message: string; readonly fields?: Record<string, string> };
}

const failed = (id: unknown, code: string, message: string, fields?: Record<string, string>): Reply => ({
  id,
  ok: false,
  error: { code, message, ...(fields ? { fields } : {}) },
});

/** Answers one line of the calculator's input; never throws. */
export function answer(line: string): Reply {
  let request: Record<string, unknown>;
  try {
    request = JSON.parse(line) as Record<string, unknown>;
  } catch {
    return failed(null, 'badJson', 'This line is not JSON.');
  }
  const odd = oddIn(request);
  if (odd !== null) return failed(null, 'badJson', odd);
  if (typeof request !== 'object' || request === null || Array.isArray(request)) {
    return failed(null, 'badJson', 'A request is a JSON object.');
  }
  const id = request['id'] ?? null;
  const name = request['do'];
  if (typeof name !== 'string' || !Object.hasOwn(operations, name)) {
    return failed(id, 'unknown', `"do" is one of: ${Object.keys(operations).join(', ')}.`, { do: 'unknown' });
  }
  try {
    const valid = calcSchemas[name as CalcName].validateSync(request, { abortEarly: false });
    return { id, ok: true, result: (operations[name as CalcName] as (r: unknown) => unknown)(valid) };
  } catch (error) {
    if (error instanceof ValidationError) {
      const fields: Record<string, string> = {};
      for (const e of error.inner.length ? error.inner : [error]) fields[e.path ?? ''] ??= e.message;
      return failed(id, 'badRequest', Object.values(fields)[0] ?? 'Something in this request needs changing.', fields);
    }
    if (error instanceof CoreError) return failed(id, error.code, error.message);
    return failed(id, 'internal', 'The calculator made a mistake on this line.');
  }
}
