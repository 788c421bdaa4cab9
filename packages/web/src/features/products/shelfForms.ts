import { gunSchema, productSchema } from '@steady-gleam/contracts';
import { parseRatio } from '@steady-gleam/core/mixing';
import { GUN_KINDS, PRODUCT_KINDS, type Additive, type Gun, type Product } from '@steady-gleam/core/products';
import type { Measure } from '@steady-gleam/core/units';
import { inPercent, numberIn } from '../../shared/numberIn';
import { ValidationError, type Schema } from 'yup';

/** What is typed: metric texts by path. */
export type Typed = Readonly<Record<string, string>>;

export interface ShelfField {
  readonly name: string;
  readonly label: string;
  readonly measure?: Measure;
  /** A figure without a unit that is switched. */
  readonly number?: boolean;
  readonly choices?: readonly string[];
  /** How a choice is said, where it is not said as it is. */
  readonly says?: Readonly<Record<string, string>>;
  readonly hint?: string;
}

export const PRODUCT_FIELDS: readonly ShelfField[] = [
  { name: 'name', label: 'Name' },
  { name: 'kind', label: 'What it is', choices: PRODUCT_KINDS },
  { name: 'chemistry', label: 'Chemistry', choices: ['solvent', 'waterborne', 'two-pack'] },
  { name: 'ratio', label: 'Ratio, as on the sheet', hint: '4:1:2, 2:1 + 10 %, or 1' },
  {
    name: 'pours',
    label: 'Its further parts',
    choices: ['', 'reducer', 'hardener', 'hardener reducer', 'reducer hardener'],
    says: { '': 'none', 'hardener reducer': 'hardener, then reducer', 'reducer hardener': 'reducer, then hardener' },
  },
  { name: 'densityGPerMl', label: 'Density in the tin', measure: 'density', hint: 'empty: by volume only' },
  { name: 'volumeSolids', label: 'Volume solids, ready to spray, %', number: true },
  { name: 'filmUm', label: 'Dry film of a coat', measure: 'film' },
  { name: 'vocGPerL', label: 'VOC in the tin', measure: 'voc' },
  { name: 'waterShare', label: 'Water, % of volume', number: true },
  { name: 'exemptShare', label: 'Exempt solvent, % of volume', number: true },
  { name: 'flashMinutes', label: 'Flash at 20 °C, min', number: true },
  { name: 'recoatMinutes', label: 'Recoat within, min', number: true, hint: 'empty: no limit' },
  { name: 'potLifeMinutes', label: 'Pot life at 20 °C, min', number: true, hint: 'empty: does not set' },
  { name: 'tipMm', label: 'Tip, mm', number: true },
  { name: 'pressureBar', label: 'Pressure at the gun', measure: 'pressure' },
  { name: 'pricePerLitre', label: 'Price', measure: 'priceByVolume' },
  { name: 'note', label: 'Note from the sheet' },
];

export const ADDITIVE_FIELDS: readonly ShelfField[] = [
  { name: 'role', label: 'Role', choices: ['hardener', 'reducer'] },
  { name: 'name', label: 'Name' },
  { name: 'fromC', label: 'From', measure: 'temperature' },
  { name: 'toC', label: 'To', measure: 'temperature' },
  { name: 'densityGPerMl', label: 'Density', measure: 'density' },
  { name: 'vocGPerL', label: 'VOC', measure: 'voc' },
  { name: 'pricePerLitre', label: 'Price', measure: 'priceByVolume' },
];

export const GUN_FIELDS: readonly ShelfField[] = [
  { name: 'name', label: 'Name and tip' },
  { name: 'kind', label: 'Kind', choices: GUN_KINDS },
  { name: 'tipMm', label: 'Tip, mm', number: true },
  { name: 'pressureBar', label: 'Pressure at the gun', measure: 'pressure' },
  { name: 'fanCm', label: 'Fan', measure: 'distance' },
  { name: 'distanceCm', label: 'Distance', measure: 'distance' },
  { name: 'speedCmS', label: 'Speed', measure: 'speed' },
  { name: 'flowMlMin', label: 'Flow a minute', measure: 'volume' },
  { name: 'turns', label: 'Needle, turns open', number: true },
  { name: 'transfer', label: 'Lands on the piece, %', number: true },
  { name: 'lossMl', label: 'Stays in cup and gun', measure: 'volume' },
];

/** Fractions that are typed as percent. */
const PERCENT = new Set(['volumeSolids', 'waterShare', 'exemptShare', 'transfer']);
const texts = (item: object): Record<string, string> =>
  Object.fromEntries(
    Object.entries(item).map(([k, v]) => [
      k,
      v === null || v === undefined
        ? ''
        : PERCENT.has(k)
          ? String(Number(((v as number) * 100).toFixed(4)))
          : String(v),
    ]),
  );

export function productToTyped({ additives, pours, ...product }: Product): Typed {
  const typed: Record<string, string> = { ...texts(product), pours: pours.join(' '), count: String(additives.length) };
  additives.forEach((a, i) =>
    Object.entries(texts(a)).forEach(([k, v]) => {
      typed[`additives.${i}.${k}`] = v;
    }),
  );
  return typed;
}

export const gunToTyped = (gun: Gun): Typed => texts(gun);

export const EMPTY_ADDITIVE: Additive = {
  role: 'reducer',
  name: '',
  fromC: 15,
  toC: 25,
  densityGPerMl: null,
  vocGPerL: 870,
  pricePerLitre: 0,
};

const figureIn = (text: string | undefined, nullable: boolean): number | null =>
  nullable && !(text ?? '').trim() ? null : numberIn(text);
const NULLABLE = new Set(['densityGPerMl', 'recoatMinutes', 'potLifeMinutes']);

function itemOf(fields: readonly ShelfField[], typed: Typed, prefix = ''): Record<string, unknown> {
  return Object.fromEntries<string | number | null>(
    fields.map((f): [string, string | number | null] => {
      const text = typed[prefix + f.name];
      if (!f.measure && !f.number) return [f.name, (text ?? '').trim()];
      const value = figureIn(text, NULLABLE.has(f.name));
      return [f.name, value !== null && PERCENT.has(f.name) ? value / 100 : value];
    }),
  );
}

/** A checked item, or the sentences by path. */
export type Checked<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly faults: Typed };

/** Schemas speak of fractions and metric; what is said at the field is in percent where it is typed so. */
function sayFault(path: string, message: string): string {
  return PERCENT.has(path) ? inPercent(message) : message;
}

export function check<T>(schema: Schema<T>, candidate: unknown): Checked<T> {
  try {
    return { ok: true, value: schema.validateSync(candidate, { abortEarly: false }) };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const faults: Record<string, string> = {};
    for (const e of error.inner.length ? error.inner : [error]) {
      const path = (e.path ?? '').replace(/\[(\d+)\]/g, '.$1');
      faults[path] ??= sayFault(path, e.message);
    }
    return { ok: false, faults };
  }
}

export function checkProduct(id: string, typed: Typed): Checked<Product> {
  const pours = (typed['pours'] ?? '').split(' ').filter(Boolean);
  const additives = Array.from({ length: Number(typed['count'] ?? 0) }, (_, i) =>
    itemOf(ADDITIVE_FIELDS, typed, `additives.${i}.`),
  );
  return check(productSchema, { ...itemOf(PRODUCT_FIELDS, typed), id, pours, additives });
}

export function checkGun(id: string, typed: Typed): Checked<Gun> {
  return check(gunSchema, { ...itemOf(GUN_FIELDS, typed), id });
}

/** A ratio in one line for a list. */
export function sayRatio(product: Product): string {
  const read = parseRatio(product.ratio);
  return read.ok && read.parts.length === 1 ? 'as it is' : product.ratio;
}
