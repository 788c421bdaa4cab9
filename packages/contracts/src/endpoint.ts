import type { InferType, Schema } from 'yup';

/** One operation of the API: what the server validates and the client calls by. */
export interface Endpoint<Body extends Schema | null, Reply extends Schema> {
  readonly method: 'GET' | 'POST' | 'PATCH' | 'PUT' | 'DELETE';
  /** Express path with :params. */
  readonly path: string;
  /** Of a GET it stands in the query. */
  readonly body: Body;
  readonly reply: Reply;
}

export function endpoint<Body extends Schema | null, Reply extends Schema>(
  e: Endpoint<Body, Reply>,
): Endpoint<Body, Reply> {
  return e;
}

/** A file that is sent as the body, or fetched; whatever else there is to say stands in the query. */
export interface FileEndpoint {
  readonly method: 'GET' | 'POST' | 'PUT';
  readonly path: string;
  /** Media types of the bytes. */
  readonly types: readonly string[];
  /** Largest file taken, bytes; left out of what is fetched. */
  readonly maxBytes?: number;
}

export const fileEndpoint = <E extends FileEndpoint>(e: E): E => e;

export type BodyOf<E> = E extends Endpoint<infer B, Schema> ? (B extends Schema ? InferType<B> : undefined) : never;
export type ReplyOf<E> = E extends Endpoint<Schema | null, infer R> ? InferType<R> : never;

/** Fills the :params of a path. */
export function pathOf(path: string, params: Record<string, string> = {}): string {
  return path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name] ?? ''));
}

/** Header of every answer of the API: the server's clock, ms since 1970. */
export const SERVER_TIME_HEADER = 'X-Server-Time';
/** Header of every answer of the API: which build of the program answers. */
export const BUILD_HEADER = 'X-Program-Build';

/** Says whether the server and its data are there; to everybody. */
export const HEALTH_PATH = '/api/health';
