import { gunsApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeGuns(_app: Express, route: Route, { guns }: Pick<Repos, 'guns'>): void {
  route(gunsApi.list, () => guns.list());
  route(gunsApi.put, (body, id) => guns.put(id, body.version, body.gun));
  route(gunsApi.remove, async (body, id) => {
    await guns.remove(id, body.version);
    return {};
  });
}
