import { logApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeLog(_app: Express, route: Route, { log }: Pick<Repos, 'log'>): void {
  route(logApi.readLog, (_, id) => log.list({ jobId: id }));
  route(logApi.addEvents, (body, id) => log.add({ jobId: id }, body.events), 201);
  route(logApi.readCardLog, (_, id) => log.list({ finishId: id }));
  route(logApi.addCardEvents, (body, id) => log.add({ finishId: id }, body.events), 201);
}
