import { productsApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import { bytesOf, takesBytes } from '../../http/files';
import { idOf, type Route } from '../../http/route';
import type { Repos } from '../repos';

export function routeProducts(app: Express, route: Route, { products }: Pick<Repos, 'products'>): void {
  route(productsApi.list, () => products.list());
  route(productsApi.put, (body, id) => products.put(id, body.version, body.product));
  route(productsApi.add, (body) => products.add(body.products), 201);
  route(productsApi.remove, async (body, id) => {
    await products.remove(id, body.version);
    return {};
  });
  app.put(productsApi.putSheet.path, takesBytes(productsApi.putSheet), async (req, res) => {
    const { name: asked } = req.query;
    const name = (typeof asked === 'string' ? asked : 'sheet').slice(0, 120);
    res.json(await products.putSheet(await idOf(req), name, bytesOf(req)));
  });
  app.get(productsApi.readSheet.path, async (req, res) => {
    const { name, type, bytes } = await products.readSheet(await idOf(req));
    res.set({ 'Content-Type': type, 'Cache-Control': 'private, no-cache' });
    res.set('Content-Disposition', `inline; filename*=UTF-8''${encodeURIComponent(name)}`);
    res.send(Buffer.from(bytes));
  });
}
