import type { ProductKind } from '@steady-gleam/core/finishes';
import { parseRatio } from '@steady-gleam/core/mixing';
import { PRODUCT_KINDS, type AdditiveRole, type Chemistry, type Product } from '@steady-gleam/core/products';
import { array, object, string, type InferType } from 'yup';
import { endpoint, fileEndpoint, pathOf } from './endpoint';
import { figure, maybeFigure, named, removal, schemaOf, trimmed, version, withVersion } from './figures';

const id = string().uuid().required();
const name = named();
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
export const productSchema = schemaOf<Product>()(
  object({
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
  }).noUnknown(),
);

function ratioFault(text: string): string | null {
  const read = parseRatio(text);
  return read.ok ? null : read.message;
}

export const sheetSchema = object({ name: string().max(120).required(), type: string().required() });
const storedProductSchema = object({
  version,
  product: productSchema,
  /** The sheet's page, when it is kept. */
  sheet: sheetSchema.nullable().defined().default(null),
});
export type StoredProduct = { version: number; product: Product; sheet: InferType<typeof sheetSchema> | null };

export const SHEET_TYPES = ['application/pdf', 'image/jpeg', 'image/png', 'image/webp'] as const;
/** Largest sheet taken, bytes. */
export const SHEET_MAX_BYTES = 10 * 1024 * 1024;

export const productsApi = {
  list: endpoint({
    method: 'GET',
    path: '/api/products',
    body: null,
    reply: array(storedProductSchema.required()).required(),
  }),
  put: endpoint({
    method: 'PUT',
    path: '/api/products/:id',
    body: object({ ...withVersion, product: productSchema }).noUnknown(),
    reply: storedProductSchema,
  }),
  remove: endpoint({ method: 'DELETE', path: '/api/products/:id', body: removal, reply: object({}) }),
  /** All of them or none. */
  add: endpoint({
    method: 'POST',
    path: '/api/products',
    body: object({
      products: array(productSchema).required().min(1, 'There is no product here.').max(200, 'At most 200 at once.'),
    }).noUnknown(),
    reply: array(storedProductSchema.required()).required(),
  }),
  putSheet: fileEndpoint({
    method: 'PUT',
    path: '/api/products/:id/sheet',
    types: SHEET_TYPES,
    maxBytes: SHEET_MAX_BYTES,
  }),
  readSheet: fileEndpoint({ method: 'GET', path: '/api/products/:id/sheet', types: SHEET_TYPES }),
} as const;

export const sheetPath = (productId: string, fileName = ''): string =>
  `${pathOf(productsApi.readSheet.path, { id: productId })}${fileName ? `?${new URLSearchParams({ name: fileName }).toString()}` : ''}`;
