import { verdictsApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeVerdicts(_app: Express, route: Route, { verdicts }: Pick<Repos, 'verdicts'>): void {
  route(verdictsApi.add, (body, id) => verdicts.add(id, body), 201);
}
