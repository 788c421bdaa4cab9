import { materialsApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeMaterials(_app: Express, route: Route, { materials }: Pick<Repos, 'materials'>): void {
  route(materialsApi.list, () => materials.list());
  route(materialsApi.put, (body, id) => materials.put(id, body.version, body.material));
  route(materialsApi.remove, async (body, id) => {
    await materials.remove(id, body.version);
    return {};
  });
}
