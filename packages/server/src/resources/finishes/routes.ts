import { finishesApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeFinishes(_app: Express, route: Route, { finishes }: Pick<Repos, 'finishes'>): void {
  route(finishesApi.list, () => finishes.list());
  route(finishesApi.read, (_, id) => finishes.read(id));
  route(finishesApi.rename, (body, id) => finishes.rename(id, body));
  route(finishesApi.remove, async (body, id) => {
    await finishes.remove(id, body.version);
    return {};
  });
}
