import { pathOf, type ApiErrorBody, type Endpoint, type ErrorCode } from '@steady-gleam/contracts';
import type { InferType, Schema } from 'yup';

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

/** Calls an endpoint; body and reply are typed by its schemas. @throws ApiFailure */
export async function call<B extends Schema | null, R extends Schema>(
  e: Endpoint<B, R>,
  options: { params?: Record<string, string>; body?: B extends Schema ? InferType<B> : never } = {},
): Promise<InferType<R>> {
  let response: Response;
  try {
    response = await fetch(pathOf(e.path, options.params), {
      method: e.method,
      ...(options.body === undefined
        ? {}
        : { body: JSON.stringify(options.body), headers: { 'Content-Type': 'application/json' } }),
    });
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
  return (await response.json()) as InferType<R>;
}
