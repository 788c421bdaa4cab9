import { gunSchema, productSchema } from '@steady-gleam/contracts';
import { parseRatio } from '@steady-gleam/core/mixing';
import { GUN_KINDS, PRODUCT_KINDS, type Additive, type Gun, type Product } from '@steady-gleam/core/products';
import type { Measure } from '@steady-gleam/core/units';
import type { Schema } from 'yup';
import { inPercent, numberIn } from '../../shared/numberIn';
import { checkWith, formPath, type Checked, type Faults } from '../../shared/checkWith';

/** Metric texts by field. */
export type TypedItem = Readonly<Record<string, string>>;

/** A product or a gun as it is typed; a gun has no additives. */
export interface TypedShelf {
  readonly item: TypedItem;
  readonly additives: readonly TypedItem[];
}

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

export const productToTyped = ({ additives, pours, ...product }: Product): TypedShelf => ({
  item: { ...texts(product), pours: pours.join(' ') },
  additives: additives.map(additiveToTyped),
});

export const gunToTyped = (gun: Gun): TypedShelf => ({ item: texts(gun), additives: [] });

export const additiveToTyped = (additive: Additive): TypedItem => texts(additive);

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

function itemOf(fields: readonly ShelfField[], typed: TypedItem): Record<string, unknown> {
  return Object.fromEntries<string | number | null>(
    fields.map((f): [string, string | number | null] => {
      const text = typed[f.name];
      if (!f.measure && !f.number) return [f.name, (text ?? '').trim()];
      const value = figureIn(text, NULLABLE.has(f.name));
      return [f.name, value !== null && PERCENT.has(f.name) ? value / 100 : value];
    }),
  );
}

/** The field a path of the schema, or of what the server says, stands for. */
export function shelfField(path: string): string {
  const own = formPath(path).replace(/^(product|gun)\./, '');
  if (own === 'additives') return '';
  return own === '' || own.startsWith('additives.') ? own : `item.${own}`;
}

/** Schemas speak of fractions and metric; what is said at the field is in percent where it is typed so. */
const inTypedUnits = (faults: Faults): Faults =>
  Object.fromEntries(
    Object.entries(faults).map(([at, said]) => [at, PERCENT.has(at.replace(/^item\./, '')) ? inPercent(said) : said]),
  );

const checkShelf = <T>(schema: Schema<T>, candidate: unknown): Checked<T> => {
  const found = checkWith(schema, candidate, shelfField);
  return found.ok ? found : { ok: false, faults: inTypedUnits(found.faults) };
};

export function checkProduct(id: string, typed: TypedShelf): Checked<Product> {
  const pours = (typed.item['pours'] ?? '').split(' ').filter(Boolean);
  const additives = typed.additives.map((a) => itemOf(ADDITIVE_FIELDS, a));
  return checkShelf(productSchema, { ...itemOf(PRODUCT_FIELDS, typed.item), id, pours, additives });
}

export function checkGun(id: string, typed: TypedShelf): Checked<Gun> {
  return checkShelf(gunSchema, { ...itemOf(GUN_FIELDS, typed.item), id });
}

/** A ratio in one line for a list. */
export function sayRatio(product: Product): string {
  const read = parseRatio(product.ratio);
  return read.ok && read.parts.length === 1 ? 'as it is' : product.ratio;
}
