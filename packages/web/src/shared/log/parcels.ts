import {
  batchesApi,
  pathOf,
  photoPath,
  readingsApi,
  verdictsApi,
  type Batch,
  type NewBatch,
  type Photo,
  type ReadingSet,
  type VerdictEvent,
} from '@steady-gleam/contracts';
import { shopNow } from '../clock';
import { newId } from '../newId';
import type { Parcel } from './device';
import { post } from './post';

type Addressed = Pick<Parcel, 'kind' | 'jobId' | 'what' | 'method' | 'path'> & { readonly id?: string };

const send = (to: Addressed, type: string, body: Parcel['body']): Promise<boolean> =>
  post({ at: Math.round(shopNow()), type, body, ...to, id: to.id ?? newId() });

const sendJson = (to: Addressed, body: unknown): Promise<boolean> => send(to, 'application/json', JSON.stringify(body));

/**
 * Keeps a photo on this device and sends it, now or when the server is back. @param owner the job of one of its history, else the finish
 * @returns whether it arrived. @throws ApiFailure where it is refused
 */
export const sendPhoto = async (jobId: string, owner: string, photo: Photo, bytes: Blob): Promise<boolean> =>
  send(
    { kind: 'photo', id: photo.id, jobId, what: 'a photo', method: 'POST', path: photoPath(owner, photo) },
    bytes.type,
    await bytes.arrayBuffer(),
  );

/** The same for a batch that was mixed. */
export const sendBatch = (batch: NewBatch): Promise<boolean> =>
  sendJson(
    {
      ...{ kind: 'batch', id: batch.id, jobId: batch.jobId, what: `the batch ${batch.name}`, method: 'POST' },
      path: batchesApi.add.path,
    },
    batch,
  );

/** What was left of a batch. */
export const sendLeft = (batch: Batch, leftMl: number): Promise<boolean> =>
  sendJson(
    {
      ...{ kind: 'batch ended', jobId: batch.jobId, what: `what was left of ${batch.name}`, method: 'PATCH' },
      path: pathOf(batchesApi.end.path, { id: batch.id }),
    },
    { version: batch.version, leftMl },
  );

/** A look at a rung of the card. */
export const sendVerdict = (jobId: string, finishId: string, verdict: VerdictEvent): Promise<boolean> =>
  sendJson(
    {
      ...{ kind: 'look', id: verdict.id, jobId, what: 'a look at the card', method: 'POST' },
      path: pathOf(verdictsApi.add.path, { id: finishId }),
    },
    verdict,
  );

/** Readings of a job's place or object, or of its finish. @param isOfJob whose they are */
export const sendReadings = (
  job: { readonly id: string; readonly finishId: string },
  set: ReadingSet,
  isOfJob: boolean,
): Promise<boolean> =>
  sendJson(
    {
      ...{ kind: 'readings', id: set.id, jobId: job.id, what: 'readings', method: 'POST' },
      path: isOfJob
        ? pathOf(readingsApi.addToJob.path, { id: job.id })
        : pathOf(readingsApi.addToFinish.path, { id: job.finishId }),
    },
    set,
  );

/** Version of a batch the server has not seen yet. */
const UNSEEN = 1;

/** Batches as this device knows them: those of the server, with what waits here to be told. */
export function withParcels(known: readonly Batch[], parcels: readonly Parcel[]): Batch[] {
  const waiting = parcels.filter((p) => p.refusal === null);
  const ids = new Set(known.map((b) => b.id));
  const mixed = waiting
    .filter((p) => p.kind === 'batch' && !ids.has(p.id))
    .map((p): Batch => ({
      ...(JSON.parse(p.body as string) as NewBatch),
      ...{ version: UNSEEN, piece: 'kept on this device', leftMl: null, endedAt: null, teaches: true },
      ...{ corrections: [], removedAt: null },
    }))
    .reverse();
  return [...mixed, ...known].map((b) => {
    const ended = waiting.find((p) => p.kind === 'batch ended' && p.path === pathOf(batchesApi.end.path, { id: b.id }));
    if (!ended || b.endedAt !== null) return b;
    const { leftMl } = JSON.parse(ended.body as string) as { leftMl: number };
    return { ...b, leftMl, endedAt: new Date(ended.at).toISOString() };
  });
}
