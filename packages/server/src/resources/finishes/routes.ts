import { bankApi, finishesApi } from '@steady-gleam/contracts';
import { nearestFinishes, type AngleLab } from '@steady-gleam/core/bank';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import type { Express } from 'express';
import { paperFor, sendPdf } from '../../http/files';
import { idOf, type Route } from '../../http/route';
import { passport } from '../../printing/passport';
import type { Repos } from '../repos';
import { createBank } from './bank';
import { routeFinishFiles } from './files';

/** Colours as an answer has them. */
const told = (angles: readonly AngleLab[]) =>
  angles.map(({ lab: [l, a, b], ...at }) => ({ ...at, lab: [l, a, b] as [number, number, number] }));

export function routeFinishes(app: Express, route: Route, repos: Repos): void {
  const { finishes, readings, materials } = repos;
  routeFinishFiles(app, repos);
  const bank = createBank(readings);
  app.get(finishesApi.passport.path, async (req, res) => {
    const id = await idOf(req);
    const own = (await materials.list()).map((m) => m.material);
    const { units, zone, address } = paperFor(req, `/bank/${id}`);
    sendPdf(
      res,
      await passport(await finishes.read(id), { own, units, zone, address, now: new Date() }),
      'passport.pdf',
    );
  });
  route(finishesApi.list, async (query) => {
    const own = (await materials.list()).map((m) => m.material).filter((m) => m.kind === 'system');
    const mixes = [...REFERENCE_LIBRARY.systems, ...own];
    return finishes.list(query, (word) =>
      mixes.filter((m) => m.name.toLowerCase().includes(word.toLowerCase())).map((m) => m.id),
    );
  });
  route(finishesApi.read, (_, id) => finishes.read(id));
  route(finishesApi.rename, (body, id) => finishes.rename(id, body));
  route(finishesApi.copy, (body, id) => finishes.copyAs(id, body.id, body.name), 201);
  route(finishesApi.remove, async (body, id) => {
    await finishes.remove(id, body.version);
    return {};
  });
  route(bankApi.readings, async () => {
    const { readings: all } = await bank();
    return { readings: all.map((r) => ({ ...r, angles: told(r.angles) })) };
  });
  route(bankApi.nearest, async ({ angles, count }) => {
    const index = await bank();
    const asked = angles.map(({ l, a, b, ...at }) => ({ ...at, lab: [l, a, b] as const }));
    const found = nearestFinishes(index, asked, count);
    const names = await finishes.names(found.map((f) => f.finishId));
    return {
      readings: index.readings.length,
      found: found.map((f) => ({
        ...f,
        rungs: [...f.rungs],
        name: names.get(f.finishId) ?? '',
        angles: told(f.angles),
      })),
    };
  });
}
