import { logApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeLog(_app: Express, route: Route, { log }: Pick<Repos, 'log'>): void {
  route(logApi.readLog, (query, id) => log.list({ jobId: id }, query.since));
  route(logApi.addEvents, (body, id) => log.add({ jobId: id }, body.events, body.since ?? null), 201);
  route(logApi.readCardLog, (query, id) => log.list({ finishId: id }, query.since));
  route(logApi.addCardEvents, (body, id) => log.add({ finishId: id }, body.events, body.since ?? null), 201);
}
