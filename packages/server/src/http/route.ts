import type { Endpoint } from '@steady-gleam/contracts';
import type { Express, Request } from 'express';
import { string, type InferType, type Schema } from 'yup';
import { ApiError } from '../errors';
import { readBody, saidIn } from './bodies';

const idSchema = string().uuid().required();

/** An id of the path. @throws ApiError where it is none */
export async function idOf(req: Request, name = 'id'): Promise<string> {
  const id = req.params[name];
  if (!(await idSchema.isValid(id))) throw new ApiError('notFound');
  return String(id);
}

/** Routes an endpoint: validates the body, of a GET the query, checks the ids of the path, answers with the handler's result. */
export type Route = <B extends Schema | null, R extends Schema>(
  e: Endpoint<B, R>,
  handler: (body: B extends Schema ? InferType<B> : undefined, id: string, finishId: string) => Promise<InferType<R>>,
  status?: number,
) => void;

/** Makes the function by which resources route their endpoints. */
export function routerOf(app: Express): Route {
  return (e, handler, status = 200) => {
    const method = e.method.toLowerCase() as 'get' | 'post' | 'patch' | 'put' | 'delete';
    app[method](e.path, async (req: Request, res) => {
      const idIn = async (name: string) => (req.params[name] === undefined ? '' : idOf(req, name));
      const [id, finishId] = await Promise.all([idIn('id'), idIn('finishId')]);
      const body = e.body ? await readBody(e.body, saidIn(e.method, req)) : undefined;
      // What a schema lets through is of its type; that it is `undefined` without one can't be told to the compiler.
      res.status(status).json(await handler(body as never, id, finishId));
    });
  };
}
