import { BATCH_SIZES, batchesApi } from '@steady-gleam/contracts';
import type { Express } from 'express';
import { paperFor, sendPdf } from '../../http/files';
import { idOf, type Route } from '../../http/route';
import { batchSheet } from '../../printing/batchSheet';
import type { Repos } from '../repos';

export function routeBatches(app: Express, route: Route, { batches, jobs }: Pick<Repos, 'batches' | 'jobs'>): void {
  route(batchesApi.list, ({ jobId }) => (jobId ? batches.ofJob(jobId) : batches.list()));
  route(batchesApi.add, (body) => batches.add(body), 201);
  route(batchesApi.remove, (body, id) => batches.remove(id, body.version, body.removed));
  route(batchesApi.correct, (body, id) => batches.correct(id, body));
  route(batchesApi.end, (body, id) => batches.end(id, body.version, body.leftMl));
  app.get(batchesApi.print.path, async (req, res) => {
    const size = BATCH_SIZES.find((s) => s === req.query['size']) ?? 'label';
    const batch = await batches.read(await idOf(req));
    const isTryOut = (await jobs.read(batch.jobId)).job.tryOut !== null;
    const { units, zone, address } = paperFor(req, `/jobs/${batch.jobId}/mix`);
    sendPdf(res, await batchSheet(batch, size, units, address, zone, isTryOut), `batch-${size}.pdf`);
  });
}
