import {
  parseRatio,
  PRODUCT_KINDS,
  type AdditiveRole,
  type Chemistry,
  type Gun,
  type Product,
  type ProductKind,
} from '@steady-gleam/core';
import { array, boolean, number, object, string, type InferType, type Schema } from 'yup';
import { endpoint } from './endpoint';
import { figure, maybeFigure, trimmed } from './figures';

const id = string().uuid().required();
const version = number().integer().min(1).required();
const name = trimmed().required('Give it a name.').max(50, 'Keep the name under 50 letters.');
const roles: readonly AdditiveRole[] = ['hardener', 'reducer'];
const density = maybeFigure('The density', 0.3, 4, ' g/ml');

const additiveSchema = object({
  role: string()
    .oneOf(roles, 'An additive is a hardener or a reducer.')
    .required('An additive is a hardener or a reducer.'),
  name,
  fromC: figure('The lowest temperature', -10, 60, ' °C'),
  toC: figure('The highest temperature', -10, 60, ' °C').test(
    'order',
    'The highest temperature lies above the lowest.',
    (v, context) => {
      const from = (context.parent as { fromC?: number }).fromC;
      return v === undefined || from === undefined || v > from;
    },
  ),
  densityGPerMl: density,
  vocGPerL: figure('The VOC', 0, 1500, ' g/l'),
  pricePerLitre: figure('The price', 0, 10000),
}).noUnknown();

/** A product of the shop, by its sheet; metric. */
export const productSchema = object({
  id,
  name,
  kind: string()
    .oneOf<ProductKind>([...PRODUCT_KINDS], 'Choose what it is.')
    .required('Choose what it is.'),
  chemistry: string()
    .oneOf<Chemistry>(['solvent', 'waterborne', 'two-pack'], 'Choose its chemistry.')
    .required('Choose its chemistry.'),
  ratio: trimmed()
    .required('Write the ratio as on the sheet; 1 for a product that is poured as it is.')
    .max(40, 'Keep the ratio under 40 letters.')
    .test('ratio', '', (v, context) => {
      const fault = v ? ratioFault(v) : null;
      return fault ? context.createError({ message: fault }) : true;
    })
    .test('pours', 'Say for every further number of the ratio whether it is hardener or reducer.', (v, context) => {
      const pours = (context.parent as { pours?: unknown[] }).pours ?? [];
      const read = parseRatio(v ?? '');
      return !read.ok || read.parts.length === pours.length + 1;
    }),
  pours: array(string().oneOf(roles, 'A part is a hardener or a reducer.').required()).required().max(4),
  densityGPerMl: density,
  volumeSolids: figure('The volume solids', 0.01, 1).typeError('The volume solids must be a fraction, 0.01 to 1.'),
  vocGPerL: figure('The VOC', 0, 1500, ' g/l'),
  waterShare: figure('The water', 0, 0.95),
  exemptShare: figure('The exempt solvent', 0, 0.95).test(
    'together',
    'Water and exempt solvent together stay under 0.98.',
    (v, context) => (v ?? 0) + ((context.parent as { waterShare?: number }).waterShare ?? 0) <= 0.98,
  ),
  flashMinutes: figure('The flash', 1, 600, ' min'),
  recoatMinutes: maybeFigure('The recoat window', 5, 100_000, ' min'),
  potLifeMinutes: maybeFigure('The pot life', 3, 10_000, ' min'),
  filmUm: figure('The film of a coat', 1, 500, ' µm'),
  tipMm: figure('The tip', 0.2, 4, ' mm'),
  pressureBar: figure('The pressure', 0.2, 8, ' bar'),
  additives: array(additiveSchema.required()).required().max(20, 'Twenty additives at most.'),
  pricePerLitre: figure('The price', 0, 10000),
  note: trimmed().max(2000, 'Keep the note under 2000 letters.').defined(),
}).noUnknown() as unknown as Schema<Product>;

function ratioFault(text: string): string | null {
  const read = parseRatio(text);
  return read.ok ? null : read.message;
}

export const gunSchema = object({
  id,
  name,
  kind: string()
    .oneOf<Gun['kind']>(['HVLP', 'conventional', 'airbrush'], 'Choose the kind of gun.')
    .required('Choose the kind of gun.'),
  tipMm: figure('The tip', 0.1, 4, ' mm'),
  pressureBar: figure('The pressure', 0.2, 8, ' bar'),
  fanCm: figure('The fan', 1, 60, ' cm'),
  distanceCm: figure('The distance', 3, 60, ' cm'),
  speedCmS: figure('The speed', 3, 200, ' cm/s'),
  flowMlMin: figure('The flow', 1, 1000, ' ml/min'),
  turns: figure('The turns', 0.1, 8),
  transfer: figure('What lands', 0.05, 1),
  lossMl: figure('What stays in cup and gun', 0, 1000, ' ml'),
}).noUnknown() as unknown as Schema<Gun>;

export const sheetSchema = object({ name: string().max(120).required(), type: string().required() });
const storedProductSchema = object({
  version,
  product: productSchema,
  /** The sheet's page, when it is kept. */
  sheet: sheetSchema.nullable().defined().default(null),
});
export type StoredProduct = { version: number; product: Product; sheet: InferType<typeof sheetSchema> | null };
const storedGunSchema = object({ version, gun: gunSchema });
export type StoredGun = { version: number; gun: Gun };

const withVersion = { version: number().integer().min(0).required() };
const removal = object({ version }).noUnknown();

/** One part of a stored batch, in pouring order. */
const batchPartSchema = object({
  name: trimmed().max(80, 'Keep the name under 80 letters.').required('Give it a name.'),
  role: string()
    .oneOf(['colour', 'product', ...roles] as const)
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
  mixedAt: string().datetime().required(),
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

export const storedBatchSchema = batchSchema.shape({
  version,
  piece: string().required(),
  /** Left over when it was finished, ml; null while it is in use. */
  leftMl: number().nullable().defined(),
  endedAt: string().datetime().nullable().defined(),
  /** When it was taken out as entered wrongly. */
  removedAt: string().datetime().nullable().defined(),
});
export type Batch = InferType<typeof storedBatchSchema>;

export const changeBatchSchema = object({
  version,
  leftMl: figure('What is left', 0, 100_000, ' ml'),
}).noUnknown();
export const removeBatchSchema = object({ version, removed: boolean().required() }).noUnknown();

export const SHEET_TYPES = ['application/pdf', 'image/jpeg', 'image/png', 'image/webp'] as const;
/** Largest sheet taken, bytes. */
export const SHEET_MAX_BYTES = 10 * 1024 * 1024;
export const sheetPath = (productId: string, fileName = ''): string =>
  `/api/products/${productId}/sheet${fileName ? `?${new URLSearchParams({ name: fileName }).toString()}` : ''}`;
export const BATCH_SIZES = ['label', 'sheet'] as const;
export const batchPdfPath = (
  batchId: string,
  size: (typeof BATCH_SIZES)[number],
  units: string,
  zone: string,
): string => `/api/batches/${batchId}/print.pdf?${new URLSearchParams({ size, units, zone }).toString()}`;

export const shopApi = {
  listProducts: endpoint({
    method: 'GET',
    path: '/api/products',
    body: null,
    reply: array(storedProductSchema.required()).required(),
  }),
  putProduct: endpoint({
    method: 'PUT',
    path: '/api/products/:id',
    body: object({ ...withVersion, product: productSchema }).noUnknown(),
    reply: storedProductSchema,
  }),
  removeProduct: endpoint({ method: 'DELETE', path: '/api/products/:id', body: removal, reply: object({}) }),
  /** All of them or none. */
  addProducts: endpoint({
    method: 'POST',
    path: '/api/products',
    body: object({
      products: array(productSchema).required().min(1, 'There is no product here.').max(200, 'At most 200 at once.'),
    }).noUnknown(),
    reply: array(storedProductSchema.required()).required(),
  }),
  listGuns: endpoint({
    method: 'GET',
    path: '/api/guns',
    body: null,
    reply: array(storedGunSchema.required()).required(),
  }),
  putGun: endpoint({
    method: 'PUT',
    path: '/api/guns/:id',
    body: object({ ...withVersion, gun: gunSchema }).noUnknown(),
    reply: storedGunSchema,
  }),
  removeGun: endpoint({ method: 'DELETE', path: '/api/guns/:id', body: removal, reply: object({}) }),
  listBatches: endpoint({
    method: 'GET',
    path: '/api/batches',
    body: null,
    reply: array(storedBatchSchema.required()).required(),
  }),
  addBatch: endpoint({ method: 'POST', path: '/api/batches', body: batchSchema, reply: storedBatchSchema }),
  removeBatch: endpoint({
    method: 'PUT',
    path: '/api/batches/:id/removed',
    body: removeBatchSchema,
    reply: storedBatchSchema,
  }),
  endBatch: endpoint({ method: 'PATCH', path: '/api/batches/:id', body: changeBatchSchema, reply: storedBatchSchema }),
} as const;
