import { ERROR_CATALOGUE, type ApiErrorBody, type ErrorCode } from '@steady-gleam/contracts';
import { CoreError } from '@steady-gleam/core/errors';
import type { ErrorRequestHandler } from 'express';
import { ValidationError } from 'yup';

/** An error the API means to answer with. */
export class ApiError extends Error {
  constructor(
    readonly code: ErrorCode,
    readonly fields?: Record<string, string>,
    message: string = ERROR_CATALOGUE[code].message,
    /** Seconds after which the same is worth another try. */
    readonly retryAfterS?: number,
  ) {
    super(message);
  }
}

/** Faults told of one request: the first ones. */
export const MOST_FIELDS = 20;

/** Field paths and sentences of a yup error; the first sentence of a field wins. */
export function fieldsOf(error: ValidationError): Record<string, string> {
  const fields: Record<string, string> = {};
  let told = 0;
  for (const e of error.inner.length ? error.inner : [error]) {
    if (fields[e.path ?? ''] !== undefined) continue;
    fields[e.path ?? ''] = e.message;
    if (++told === MOST_FIELDS) break;
  }
  return fields;
}

function toApiError(error: unknown): ApiError {
  if (error instanceof ApiError) return error;
  if (error instanceof ValidationError) return new ApiError('badRequest', fieldsOf(error));
  // Core refuses what it can't work with, in a sentence.
  if (error instanceof CoreError) return new ApiError('notWorkable', undefined, error.message);
  const type = (error as { type?: string }).type;
  if (type === 'entity.too.large') return new ApiError('tooLarge');
  if (type === 'body.too.many')
    return new ApiError('tooLarge', undefined, 'This is more than can be taken at once. Send it in parts.');
  if (type === 'body.too.deep')
    return new ApiError('badRequest', undefined, 'This request has too many lists in one another to be read.');
  if (type === 'entity.parse.failed' || type === 'encoding.unsupported' || type === 'charset.unsupported') {
    return new ApiError('badRequest', undefined, 'This request could not be read as JSON.');
  }
  // What express and its parsers could not read: a broken escape in the path, a broken compression, a body that was cut off.
  const status = error instanceof URIError ? 400 : (error as { status?: unknown }).status;
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new ApiError(status === 404 ? 'notFound' : 'badRequest', undefined, 'This request could not be read.');
  return ofDatabase(error) ?? new ApiError('internal');
}

const causesOf = (error: unknown): readonly unknown[] => [error, (error as { cause?: unknown } | null)?.cause];

/** SQLSTATE, or what the system says of a connection, of an error or its cause; empty where there is none. */
const stateOf = (error: unknown): string =>
  causesOf(error)
    .map((e) => (e as { code?: unknown } | null | undefined)?.code)
    .find((c): c is string => typeof c === 'string') ?? '';

/** What a database that is away, full or held by others says: classes 08, 53, 57, a lock not had in time, a line that broke. */
const isBusy = (error: unknown): boolean =>
  /^(08...|53...|57...|55P03|25P03|25P04|40001|40P01|ECONN\w*|ETIMEDOUT|EPIPE|EHOST\w*|ENOTFOUND|EAI_\w+)$/.test(
    stateOf(error),
  ) ||
  causesOf(error).some(
    (e) =>
      e instanceof Error &&
      /^(timeout exceeded when trying to connect|Query read timeout|Connection terminated|Client has encountered a connection error)/.test(
        e.message,
      ),
  );

/** What the database says, by the classes of SQLSTATE; null for a fault of another kind. */
function ofDatabase(error: unknown): ApiError | null {
  const code = stateOf(error);
  if (code === '53100' || code === 'ENOSPC')
    return new ApiError('busy', undefined, 'There is no room left on the shop’s disk. Nothing was stored.', 60);
  if (isBusy(error)) return new ApiError('busy', undefined, undefined, 2);
  if (/^22\w{3}$/.test(code))
    return new ApiError('badRequest', undefined, 'Something in this entry can’t be kept as it is.');
  // Something else took the id meanwhile, or what it belongs to is gone.
  if (code === '23505') return new ApiError('conflict');
  if (code === '23503') return new ApiError('notFound');
  return null;
}

/** The one place where errors become answers; unknown ones are logged once and tell nothing about the inside. */
export const handleErrors: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) {
    next(error);
    return;
  }
  const known = toApiError(error);
  if (known.code === 'internal') req.log?.error({ err: error }, 'unexpected error');
  if (known.code === 'busy') req.log?.warn({ err: error }, 'the database is busy or away');
  if (known.retryAfterS !== undefined) res.setHeader('Retry-After', String(known.retryAfterS));
  const body: ApiErrorBody = {
    code: known.code,
    message: known.message,
    ...(known.fields ? { fields: known.fields } : {}),
  };
  res.status(ERROR_CATALOGUE[known.code].status);
  // A file that was opened in a window of its own is read by a person, not by the program.
  if (req.accepts(['json', 'html']) === 'html') res.type('html').send(page(known));
  else res.json(body);
};

const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** An error as a page in words. */
function page(error: ApiError): string {
  const lines = [error.message, ...Object.values(error.fields ?? {})].filter((line) => line !== '');
  // The sentence of a field says more than the general one above it.
  const said = error.fields && lines.length > 1 ? lines.slice(1) : lines;
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Steady Gleam</title>
<body style="font:20px/1.4 sans-serif;background:#ababab;color:#161616;margin:4rem auto;max-width:34rem;padding:0 1rem">
<h1 style="font-size:28px">This could not be opened.</h1>
${said.map((line) => `<p>${escaped(line)}</p>`).join('\n')}
<p>Close this window and go on where you were.</p></body></html>`;
}
