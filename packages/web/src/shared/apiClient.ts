import { type ApiErrorBody, type Endpoint, type ErrorCode, pathOf, SERVER_TIME_HEADER } from '@steady-gleam/contracts';
import type { InferType, Schema } from 'yup';
import { learnClock } from './clock';

/** An answer of the server that is not a success, or no answer at all (`offline`). */
export class ApiFailure extends Error {
  constructor(
    readonly code: ErrorCode | 'offline',
    message: string,
    readonly fields: Record<string, string> = {},
  ) {
    super(message);
  }
}

/** A fetch whose failures are {@link ApiFailure}s; the reply's JSON otherwise. */
async function request(path: string, init: RequestInit): Promise<unknown> {
  let response: Response;
  const sent = Date.now();
  try {
    response = await fetch(path, init);
    const told = response.headers.get(SERVER_TIME_HEADER);
    if (told !== null) learnClock(Number(told), sent, Date.now());
  } catch {
    throw new ApiFailure('offline', 'The server does not answer. What you typed is kept; try again when it is back.');
  }
  if (!response.ok) {
    const body = (await response.json().catch(() => null)) as ApiErrorBody | null;
    throw new ApiFailure(
      body?.code ?? 'internal',
      body?.message ?? 'The server made a mistake; try again.',
      body?.fields,
    );
  }
  return response.json();
}

/** Calls an endpoint, the body of a GET in its query; body and reply are typed by its schemas. @throws ApiFailure */
export async function call<B extends Schema | null, R extends Schema>(
  e: Endpoint<B, R>,
  options: { params?: Record<string, string>; body?: B extends Schema ? InferType<B> : never } = {},
): Promise<InferType<R>> {
  const path = pathOf(e.path, options.params);
  if (e.method === 'GET' && options.body) {
    const asked = Object.entries(options.body as Record<string, unknown>).filter(
      ([, v]) => v !== null && v !== '' && !(Array.isArray(v) && !v.length),
    );
    const query = new URLSearchParams(asked.map(([k, v]) => [k, String(v)])).toString();
    return (await request(query ? `${path}?${query}` : path, { method: 'GET' })) as InferType<R>;
  }
  const body =
    options.body === undefined
      ? {}
      : { body: JSON.stringify(options.body), headers: { 'Content-Type': 'application/json' } };
  return (await request(path, { method: e.method, ...body })) as InferType<R>;
}

/** Sends a picture. @throws ApiFailure */
export function sendBytes(path: string, bytes: Blob): Promise<unknown> {
  return request(path, { method: 'POST', body: bytes, headers: { 'Content-Type': bytes.type } });
}

/** Puts a file in its place. @throws ApiFailure */
export function putBytes(path: string, bytes: Blob): Promise<unknown> {
  return request(path, { method: 'PUT', body: bytes, headers: { 'Content-Type': bytes.type } });
}

/** What to say of something that was refused: the sentence made for its field, where there is one. */
export function faultOf(error: Error): string {
  return (error instanceof ApiFailure ? Object.values(error.fields)[0] : undefined) ?? error.message;
}
