import { cardsApi, LABEL_SIZES } from '@steady-gleam/contracts';
import type { Express } from 'express';
import { paperFor, sendPdf } from '../../http/files';
import { idOf, type Route } from '../../http/route';
import { cardLabel } from '../../printing/cardLabel';
import type { Repos } from '../repos';

type Needed = Pick<Repos, 'cards' | 'jobs' | 'materials'>;

export function routeCards(app: Express, route: Route, { cards, jobs, materials }: Needed): void {
  route(cardsApi.put, (body, id) => cards.put(id, body));
  route(cardsApi.putHand, async (body, id) => {
    await cards.putHand(id, body);
    return {};
  });
  route(cardsApi.setHand, async (body, id) => {
    await cards.setHand(id, body.teaches);
    return {};
  });
  route(cardsApi.retire, (body, id) => cards.retire(id, body.version));
  route(cardsApi.recall, (_, id) => cards.recall(id));
  app.get(cardsApi.label.path, async (req, res) => {
    const id = await idOf(req);
    const size = LABEL_SIZES.find((s) => s === req.query['size']) ?? 'card';
    const { units, zone, address } = paperFor(req, `/jobs/${id}/card`);
    const own = (await materials.list()).map((m) => m.material);
    const pdf = await cardLabel(await jobs.read(id), own, size, address, units, zone, new Date());
    sendPdf(res, pdf, `label-${size}.pdf`);
  });
}
