import { photosApi, photoSchema } from '@steady-gleam/contracts';
import type { Express, RequestHandler } from 'express';
import { ApiError } from '../../errors';
import { bytesOf, fileType, takesBytes } from '../../http/files';
import { idOf, type Route } from '../../http/route';
import type { Owner } from '../readings/repo';
import type { Repos } from '../repos';

export function routePhotos(app: Express, route: Route, { photos }: Pick<Repos, 'photos'>): void {
  const add =
    (ownerOf: (id: string) => Owner): RequestHandler =>
    async (req, res) => {
      const id = await idOf(req);
      const { coats, ...query } = req.query as Record<string, string>;
      const said = { ...query, coats: coats === undefined ? null : Number(coats) };
      const photo = await photoSchema.validate(said, { abortEarly: false });
      const bytes = bytesOf(req);
      const type = fileType(bytes);
      if (!type || type === 'application/pdf')
        throw new ApiError('badRequest', { photo: 'This is not a JPEG, PNG or WebP picture. Choose a photo.' });
      res.status(201).json(await photos.add(ownerOf(id), photo, type, bytes));
    };
  const { addToJob, addToFinish } = photosApi;
  app.post(
    addToJob.path,
    takesBytes(addToJob),
    add((jobId) => ({ jobId })),
  );
  app.post(
    addToFinish.path,
    takesBytes(addToFinish),
    add((finishId) => ({ finishId })),
  );
  app.get(photosApi.read.path, async (req, res) => {
    const { type, bytes } = await photos.read(await idOf(req));
    res.set({ 'Content-Type': type, 'Content-Disposition': 'inline' });
    res.send(Buffer.from(bytes));
  });
  route(photosApi.remove, async (_, id) => {
    await photos.remove(id);
    return {};
  });
}
