import { array, boolean, number, object, string, type InferType } from 'yup';
import { endpoint, fileEndpoint, pathOf } from './endpoint';
import { figure, maybeFigure, moment, trimmed, version } from './figures';

const id = string().uuid().required();

/** One part of a stored batch, in pouring order. */
const batchPartSchema = object({
  name: trimmed().max(80, 'Keep the name under 80 letters.').required('Give it a name.'),
  role: string()
    .oneOf(['colour', 'product', 'hardener', 'reducer'] as const)
    .required(),
  parts: figure('Parts', 0.0001, 10_000),
  /** Poured, ml; grams where the density is known. */
  ml: figure('The volume', 0, 100_000, ' ml'),
  grams: maybeFigure('The weight', 0, 200_000, ' g'),
  lot: trimmed().max(40, 'Keep the lot under 40 letters.').defined(),
}).noUnknown();

/** A batch as it was mixed. Append-only with a client-made id; only what became of it changes. */
export const batchSchema = object({
  id,
  jobId: id,
  /** Layer of the job's stack it is for. */
  layerId: string().max(60).required(),
  name: trimmed().max(80, 'Keep the name under 80 letters.').required('Give it a name.'),
  productId: string().uuid().nullable().defined(),
  gunId: string().uuid().nullable().defined(),
  parts: array(batchPartSchema.required()).required().min(1, 'A batch has a part or more.').max(12),
  ml: figure('The batch', 1, 100_000, ' ml'),
  temperatureC: figure('The temperature', -10, 60, ' °C'),
  mixedAt: moment().required(),
  potMinutes: maybeFigure('The pot life', 0.5, 100_000, ' min'),
  /** Dry film meant times area, ml of solids; teaches the gun. */
  solidMl: figure('The solids', 0, 100_000),
  volumeSolids: figure('The volume solids', 0.01, 1),
  lossMl: figure('What stays in cup and gun', 0, 1000, ' ml'),
  vocActual: maybeFigure('The VOC', 0, 2000),
  vocCoating: maybeFigure('The VOC', 0, 5000),
  cost: maybeFigure('The cost', 0, 1_000_000),
  /** Sprayed on the job's let-down card too. */
  onCard: boolean().required(),
  note: trimmed().max(400, 'Keep the note under 400 letters.').defined(),
}).noUnknown();
export type NewBatch = InferType<typeof batchSchema>;

/** What a batch said before it was corrected. */
const correctionSchema = object({
  at: string().datetime().required(),
  ml: number().required(),
  leftMl: number().nullable().defined(),
  gunId: string().uuid().nullable().defined(),
}).noUnknown();
export type BatchCorrection = InferType<typeof correctionSchema>;

export const storedBatchSchema = batchSchema.shape({
  version,
  piece: string().required(),
  /** Left over when it was finished, ml; null while it is in use. */
  leftMl: number().nullable().defined(),
  endedAt: string().datetime().nullable().defined(),
  /** Whether its gun is taught by it. */
  teaches: boolean().required(),
  /** What it said before, the oldest first. */
  corrections: array(correctionSchema.required()).required(),
  /** When it was taken out as entered wrongly. */
  removedAt: string().datetime().nullable().defined(),
});
export type Batch = InferType<typeof storedBatchSchema>;

export const changeBatchSchema = object({
  version,
  leftMl: figure('What is left', 0, 100_000, ' ml'),
}).noUnknown();
/** What is corrected of one that was entered wrongly; what is left out stays. */
export const correctBatchSchema = object({
  version,
  ml: figure('The batch', 1, 100_000, ' ml').optional().default(undefined),
  leftMl: maybeFigure('What is left', 0, 100_000, ' ml').optional().default(undefined),
  gunId: string().uuid().nullable().optional().default(undefined),
  teaches: boolean().optional(),
}).noUnknown();
export type CorrectBatch = InferType<typeof correctBatchSchema>;
export const removeBatchSchema = object({ version, removed: boolean().required() }).noUnknown();

export const BATCH_SIZES = ['label', 'sheet'] as const;

export const batchesApi = {
  /** Those in use, the newest ones, and of every gun the newest that teach it; of one job all of them. */
  list: endpoint({
    method: 'GET',
    path: '/api/batches',
    body: object({ jobId: string().uuid().optional() }).noUnknown(),
    reply: array(storedBatchSchema.required()).required(),
  }),
  add: endpoint({ method: 'POST', path: '/api/batches', body: batchSchema, reply: storedBatchSchema }),
  remove: endpoint({
    method: 'PUT',
    path: '/api/batches/:id/removed',
    body: removeBatchSchema,
    reply: storedBatchSchema,
  }),
  /** A wrong entry is put right: what it said before stays in its history. */
  correct: endpoint({
    method: 'PATCH',
    path: '/api/batches/:id/correction',
    body: correctBatchSchema,
    reply: storedBatchSchema,
  }),
  end: endpoint({ method: 'PATCH', path: '/api/batches/:id', body: changeBatchSchema, reply: storedBatchSchema }),
  print: fileEndpoint({ method: 'GET', path: '/api/batches/:id/print.pdf', types: ['application/pdf'] }),
} as const;

export const batchPdfPath = (
  batchId: string,
  size: (typeof BATCH_SIZES)[number],
  units: string,
  zone: string,
): string =>
  `${pathOf(batchesApi.print.path, { id: batchId })}?${new URLSearchParams({ size, units, zone }).toString()}`;
