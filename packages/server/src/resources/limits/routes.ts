import { limitsApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import type { Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeLimits(_app: Express, route: Route, { limits }: Pick<Repos, 'limits'>): void {
  route(limitsApi.putFamily, (body) => limits.put(body));
}
