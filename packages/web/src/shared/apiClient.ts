import {
  type ApiErrorBody,
  BUILD_HEADER,
  type Endpoint,
  type ErrorCode,
  HEALTH_PATH,
  pathOf,
  SERVER_TIME_HEADER,
} from '@steady-gleam/contracts';
import type { InferType, Schema } from 'yup';
import { OWN_BUILD } from './ownBuild';
import { learnClock } from './clock';
import { toldAway, toldThere } from './reach';

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

/** How long an answer is waited for, ms: a server that sleeps or swallows what is sent counts as away. Files take longer. */
const [WAIT_MS, FILE_WAIT_MS] = [20_000, 120_000] as const;
/** Of what the booth tells: a painter hears within five seconds that the server does not answer. */
export const TAP_WAIT_MS = 4_000;

/** What an answer says of the shop's door; null where it stands before the door. */
function lockOf(path: string, code: ErrorCode | undefined): boolean | null {
  if (code === 'locked') return true;
  return path === HEALTH_PATH || code === 'wrongCode' || code === 'tooMany' ? null : false;
}

/** A fetch whose failures are {@link ApiFailure}s, an answer that never comes among them; the reply's JSON otherwise. */
export async function request(path: string, init: RequestInit, waitMs: number = WAIT_MS): Promise<unknown> {
  let response: Response;
  let text: string;
  const sent = Date.now();
  try {
    response = await fetch(path, { ...init, signal: AbortSignal.timeout(waitMs) });
    const told = response.headers.get(SERVER_TIME_HEADER);
    if (told !== null) learnClock(Number(told), sent, Date.now());
    // An answer can also stop half way.
    text = await response.text();
  } catch {
    toldAway();
    throw new ApiFailure('offline', 'The server does not answer. What you typed is kept; try again when it is back.');
  }
  let body: unknown = null;
  try {
    body = JSON.parse(text);
  } catch {
    if (response.ok) throw new ApiFailure('internal', 'The server’s answer can’t be read; try again.');
  }
  const said = response.ok ? null : (body as ApiErrorBody | null);
  toldThere(lockOf(path, said?.code), response.headers.get(BUILD_HEADER), OWN_BUILD);
  if (!response.ok) {
    throw new ApiFailure(
      said?.code ?? 'internal',
      said?.message ?? 'The server made a mistake; try again.',
      said?.fields,
    );
  }
  return body;
}

/** Calls an endpoint, the body of a GET in its query; body and reply are typed by its schemas. @throws ApiFailure */
export async function call<B extends Schema | null, R extends Schema>(
  e: Endpoint<B, R>,
  options: { params?: Record<string, string>; body?: B extends Schema ? InferType<B> : never; waitMs?: number } = {},
): Promise<InferType<R>> {
  const path = pathOf(e.path, options.params);
  if (e.method === 'GET' && options.body) {
    const asked = Object.entries(options.body as Record<string, unknown>).filter(
      ([, v]) => v !== undefined && v !== null && v !== '' && !(Array.isArray(v) && !v.length),
    );
    const query = new URLSearchParams(asked.map(([k, v]) => [k, String(v)])).toString();
    return await request(query ? `${path}?${query}` : path, { method: 'GET' }, options.waitMs);
  }
  const body =
    options.body === undefined
      ? {}
      : { body: JSON.stringify(options.body), headers: { 'Content-Type': 'application/json' } };
  return await request(path, { method: e.method, ...body }, options.waitMs);
}

/** Sends a picture. @throws ApiFailure */
export function sendBytes(path: string, bytes: Blob): Promise<unknown> {
  return request(path, { method: 'POST', body: bytes, headers: { 'Content-Type': bytes.type } }, FILE_WAIT_MS);
}

/** Puts a file in its place. @throws ApiFailure */
export function putBytes(path: string, bytes: Blob): Promise<unknown> {
  return request(path, { method: 'PUT', body: bytes, headers: { 'Content-Type': bytes.type } }, FILE_WAIT_MS);
}

/** What to say of something that was refused: the sentence made for its field, where there is one. */
export function faultOf(error: Error): string {
  return (error instanceof ApiFailure ? Object.values(error.fields)[0] : undefined) ?? error.message;
}
