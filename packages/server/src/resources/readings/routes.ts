import { readingsApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeReadings(_app: Express, route: Route, { readings }: Pick<Repos, 'readings'>): void {
  route(readingsApi.addToFinish, (body, id) => readings.add({ finishId: id }, body), 201);
  route(readingsApi.addToJob, (body, id) => readings.add({ jobId: id }, body), 201);
  route(readingsApi.remove, async (body, id) => {
    await readings.remove(id, body.removed);
    return {};
  });
}
