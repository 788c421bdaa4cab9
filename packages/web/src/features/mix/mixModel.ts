import {
  bodyArea,
  CoreError,
  cupFor,
  mixByParts,
  quantityMl,
  roundUpBatch,
  type BodyShape,
  type EffectSystem,
  type MixedPart,
  type MixPart,
} from '@steady-gleam/core';

/** What was typed about the piece and the gun; text, so that nothing typed is lost. */
export interface MixForm {
  readonly shape: BodyShape['kind'] | 'area';
  readonly values: Readonly<Record<string, string>>;
  /** Share of the spray that lands, percent. */
  readonly transfer: string;
  /** Left in cup, strainer and gun, ml. */
  readonly loss: string;
  readonly pieces: string;
}

/** The measures of each shape, in the order they are asked. */
export const SHAPE_FIELDS: Record<MixForm['shape'], readonly { readonly name: string; readonly label: string }[]> = {
  area: [{ name: 'area', label: 'Area, m²' }],
  panel: [
    { name: 'width', label: 'Width, m' },
    { name: 'height', label: 'Height, m' },
  ],
  cylinder: [
    { name: 'diameter', label: 'Diameter, m' },
    { name: 'height', label: 'Height, m' },
  ],
  dome: [
    { name: 'diameter', label: 'Diameter, m' },
    { name: 'height', label: 'Height, m' },
  ],
  tub: [
    { name: 'top', label: 'Across the top, m' },
    { name: 'bottom', label: 'Across the floor, m' },
    { name: 'height', label: 'Height, m' },
  ],
  tube: [
    { name: 'diameter', label: 'Diameter, m' },
    { name: 'length', label: 'Length in all, m' },
  ],
};
export const SHAPE_NAMES: Record<MixForm['shape'], string> = {
  area: 'Area',
  panel: 'Panel',
  cylinder: 'Cylinder',
  dome: 'Dome',
  tub: 'Tub',
  tube: 'Tube frame',
};

export const START: MixForm = { shape: 'area', values: { area: '2' }, transfer: '65', loss: '40', pieces: '1' };

const numberOf = (text: string | undefined): number => {
  const plain = (text ?? '').trim().replace(',', '.');
  return plain === '' ? NaN : Number(plain);
};

/** Sentences for what is not a usable figure, by field. */
export function faultsOf(form: MixForm): Record<string, string> {
  const faults: Record<string, string> = {};
  for (const { name } of SHAPE_FIELDS[form.shape]) {
    const v = numberOf(form.values[name]);
    if (Number.isNaN(v)) faults[name] = 'A number in metres.';
    else if (v <= 0) faults[name] = 'More than zero.';
    else if (v > 200) faults[name] = 'At most 200.';
  }
  const within = (field: 'transfer' | 'loss' | 'pieces', lo: number, hi: number, said: string) => {
    const v = numberOf(form[field]);
    if (!(v >= lo && v <= hi)) faults[field] = said;
  };
  within('transfer', 5, 100, 'Between 5 and 100 %.');
  within('loss', 0, 1000, 'Between 0 and 1000 ml.');
  within('pieces', 1, 200, 'Between 1 and 200.');
  return faults;
}

export interface Batch {
  readonly area: number;
  /** Needed, before rounding, and what is mixed; ml. */
  readonly needed: number;
  readonly ml: number;
  readonly low: number;
  readonly high: number;
  readonly parts: readonly MixedPart[];
  readonly cup: number | null;
}

/** Parts of a mix at a strength: the carrier as it is, what colours it multiplied. */
export function partsAt(system: EffectSystem, strength: number): MixPart[] {
  return system.parts.map((p, i) => ({ name: p.name, parts: i ? p.parts * strength : p.parts, density: p.density }));
}

/** Transfer efficiency is seldom known better than this, percent points; ours. */
const TRANSFER_DOUBT = 8;

/** A batch for the piece; null while something typed is no figure. */
export function batchFor(
  form: MixForm,
  system: EffectSystem,
  volumeSolids: number,
  recipe: { readonly filmCoats: number; readonly strength: number },
): Batch | null {
  if (Object.keys(faultsOf(form)).length) return null;
  const v = Object.fromEntries(SHAPE_FIELDS[form.shape].map(({ name }) => [name, numberOf(form.values[name])]));
  let area: number;
  try {
    area =
      (form.shape === 'area' ? v['area']! : bodyArea({ kind: form.shape, ends: 0, ...v } as unknown as BodyShape)) *
      numberOf(form.pieces);
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
  const transfer = numberOf(form.transfer);
  const need = (percent: number) =>
    quantityMl({
      area,
      coats: recipe.filmCoats,
      dryFilm: system.filmUm,
      volumeSolids,
      transferEfficiency: Math.min(100, Math.max(5, percent)) / 100,
      loss: numberOf(form.loss),
    });
  const needed = need(transfer);
  const ml = roundUpBatch(needed);
  return {
    area,
    needed,
    ml,
    low: need(transfer + TRANSFER_DOUBT),
    high: need(transfer - TRANSFER_DOUBT),
    parts: mixByParts(partsAt(system, recipe.strength), { total: ml }).parts,
    cup: cupFor(ml),
  };
}
