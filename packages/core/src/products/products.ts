import type { ProductKind } from '../finishes/families';

/** What a product is made with: it decides how it flashes, and what may go over it. */
export type Chemistry = 'solvent' | 'waterborne' | 'two-pack';

export const PRODUCT_KINDS: readonly ProductKind[] = [
  'primer',
  'sealer',
  'ground',
  'mid coat',
  'intercoat',
  'flake carrier',
  'tinted clear',
  'clear',
];

export type AdditiveRole = 'hardener' | 'reducer';

/** A reducer or hardener with the temperatures its sheet gives it. */
export interface Additive {
  readonly role: AdditiveRole;
  readonly name: string;
  /** C. */
  readonly fromC: number;
  readonly toC: number;
  /** g/ml; null when not known. */
  readonly densityGPerMl: number | null;
  /** Mass of VOC in a litre of it, g. */
  readonly vocGPerL: number;
  readonly pricePerLitre: number;
}

/** A product of the shop, by its sheet. */
export interface Product {
  readonly id: string;
  readonly name: string;
  readonly kind: ProductKind;
  readonly chemistry: Chemistry;
  /** As on the sheet: "4:1:2", "2:1 + 10 %"; "1" for a product that is poured as it is. The product comes first. */
  readonly ratio: string;
  /** What the further numbers of the ratio are, in their order. */
  readonly pours: readonly AdditiveRole[];
  /** As it stands in the tin, g/ml; null when not known. */
  readonly densityGPerMl: number | null;
  /** Ready to spray, fraction. */
  readonly volumeSolids: number;
  /** As it stands in the tin: mass of VOC in a litre, g; shares of water and exempt solvent by volume. */
  readonly vocGPerL: number;
  readonly waterShare: number;
  readonly exemptShare: number;
  /** At 20 C, minutes. */
  readonly flashMinutes: number;
  /** Longest wait before the next coat without sanding, minutes at 20 C; null when there is no limit. */
  readonly recoatMinutes: number | null;
  /** At 20 C, minutes; null for what does not set in the cup. */
  readonly potLifeMinutes: number | null;
  /** Dry film of a coat, um. */
  readonly filmUm: number;
  readonly tipMm: number;
  /** At the gun. */
  readonly pressureBar: number;
  readonly additives: readonly Additive[];
  readonly pricePerLitre: number;
  /** What the sheet says besides. */
  readonly note: string;
}

/** Area from which a job is large: slower reducer and hardener keep the edge wet; ours, m2. */
export const LARGE_JOB_M2 = 6;
/** A large job asks for the reducer and hardener of a booth this much warmer, C; ours. */
const LARGE_JOB_C = 5;

export interface AdditiveAdvice {
  readonly additive: Additive;
  readonly why: string;
  /** Set when none of the shop's suits the temperature. */
  readonly warning: string | null;
}

const middleOf = (a: Additive): number => (a.fromC + a.toC) / 2;

/** Whether an additive may be taken: its band holds the temperature, or, for a large job, a somewhat warmer one. */
export function additiveSuits(additive: Additive, temperature: number, areaM2: number): boolean {
  const holds = (t: number) => t >= additive.fromC && t <= additive.toC;
  return holds(temperature) || (areaM2 >= LARGE_JOB_M2 && holds(temperature + LARGE_JOB_C));
}

/**
 * The reducer or hardener for a temperature and a job: the one whose band lies closest around the temperature; for a large job
 * the next slower one, when its band holds a somewhat warmer booth; the nearest one, with a warning, when none suits.
 * Null when the shop has none.
 */
export function adviseAdditive(
  additives: readonly Additive[],
  role: AdditiveRole,
  temperature: number,
  areaM2: number,
): AdditiveAdvice | null {
  const own = additives.filter((a) => a.role === role).sort((a, b) => middleOf(a) - middleOf(b));
  if (!own.length) return null;
  const suits = own.filter((a) => additiveSuits(a, temperature, areaM2));
  if (!suits.length) {
    const off = (a: Additive) => Math.max(a.fromC - temperature, temperature - a.toC);
    const nearest = own.reduce((a, b) => (off(b) < off(a) ? b : a));
    return {
      additive: nearest,
      why: 'the nearest there is',
      warning: 'Its sheet does not give it for this temperature. Warm or cool the booth, or get the right one.',
    };
  }
  const off = (a: Additive) => Math.abs(middleOf(a) - temperature);
  const usual = suits.reduce((a, b) => (off(b) < off(a) ? b : a));
  const slower = areaM2 >= LARGE_JOB_M2 ? suits.find((a) => middleOf(a) > middleOf(usual)) : null;
  if (slower) return { additive: slower, why: 'slower for a large job: overspray still melts in', warning: null };
  return { additive: usual, why: 'for this temperature', warning: null };
}

/** The flash on a sheet is told for the reducer of this temperature, C. */
const SHEET_C = 20;

/**
 * How much longer or shorter a product flashes with a reducer than its sheet says, as a factor. Reducers are made so that each
 * flashes alike in the middle of its own band; the sheet's figure is taken for the one that suits 20 C. Ours.
 * @param reducer null for a product without one: 1
 */
export function reducerPace(product: Pick<Product, 'additives'>, reducer: Additive | null): number {
  const usual = adviseAdditive(product.additives, 'reducer', SHEET_C, 0)?.additive;
  return reducer && usual ? 2 ** ((middleOf(reducer) - middleOf(usual)) / 10) : 1;
}

/** The reducer a product is mixed with: the one chosen by name, else the advised one; null where it takes none. */
export function reducerFor(
  product: Pick<Product, 'additives' | 'pours'>,
  temperature: number,
  areaM2: number,
  chosen: string | undefined,
): Additive | null {
  if (!product.pours.includes('reducer')) return null;
  const own = product.additives.find((a) => a.role === 'reducer' && a.name === chosen);
  return own ?? adviseAdditive(product.additives, 'reducer', temperature, areaM2)?.additive ?? null;
}

const additive = (
  role: AdditiveRole,
  name: string,
  fromC: number,
  toC: number,
  densityGPerMl: number,
  vocGPerL: number,
  pricePerLitre: number,
): Additive => ({ role, name, fromC, toC, densityGPerMl, vocGPerL, pricePerLitre });

const REDUCERS = [
  additive('reducer', 'Breakwater reducer, fast', 8, 19, 0.86, 860, 14),
  additive('reducer', 'Breakwater reducer, medium', 16, 27, 0.87, 870, 14),
  additive('reducer', 'Breakwater reducer, slow', 22, 36, 0.89, 890, 15),
];
const HARDENERS = [
  additive('hardener', 'Harbour hardener, fast', 8, 19, 1.02, 380, 42),
  additive('hardener', 'Harbour hardener, medium', 16, 27, 1.02, 380, 42),
  additive('hardener', 'Harbour hardener, slow', 22, 36, 1.03, 390, 44),
];
const SEALER_HARDENER = [additive('hardener', 'Groyne sealer hardener', 10, 32, 0.99, 450, 38)];

const product = (id: string, name: string, kind: ProductKind, more: Partial<Product>): Product => ({
  id,
  name,
  kind,
  chemistry: 'solvent',
  ratio: '1:1',
  pours: ['reducer'],
  densityGPerMl: 0.95,
  volumeSolids: 0.2,
  vocGPerL: 700,
  waterShare: 0,
  exemptShare: 0,
  flashMinutes: 10,
  recoatMinutes: 24 * 60,
  potLifeMinutes: null,
  filmUm: 12,
  tipMm: 1.3,
  pressureBar: 1.6,
  additives: REDUCERS,
  pricePerLitre: 30,
  note: '',
  ...more,
});

/**
 * Products a shop may start with. Names and prices are invented; figures are common practice (no source): the product's own
 * sheet takes their place.
 */
export const STARTING_PRODUCTS: readonly Product[] = [
  product('4d000000-0000-4000-8000-000000000001', 'Groyne primer', 'primer', {
    chemistry: 'two-pack',
    ratio: '4:1:1',
    pours: ['hardener', 'reducer'],
    densityGPerMl: 1.48,
    volumeSolids: 0.42,
    vocGPerL: 420,
    flashMinutes: 12,
    recoatMinutes: 7 * 24 * 60,
    potLifeMinutes: 60,
    filmUm: 45,
    tipMm: 1.8,
    pressureBar: 2,
    additives: [...SEALER_HARDENER, ...REDUCERS],
    pricePerLitre: 26,
    note: 'Sand P320 to P400 once cured.',
  }),
  product('4d000000-0000-4000-8000-000000000002', 'Groyne sealer', 'sealer', {
    chemistry: 'two-pack',
    ratio: '4:1:1',
    pours: ['hardener', 'reducer'],
    densityGPerMl: 1.32,
    volumeSolids: 0.36,
    vocGPerL: 460,
    flashMinutes: 15,
    recoatMinutes: 5 * 24 * 60,
    potLifeMinutes: 90,
    filmUm: 25,
    tipMm: 1.4,
    pressureBar: 1.8,
    additives: [...SEALER_HARDENER, ...REDUCERS],
    pricePerLitre: 28,
    note: 'Wet on wet; white, black and red to mix a shade.',
  }),
  product('4d000000-0000-4000-8000-000000000003', 'Tideboard ground', 'ground', {
    densityGPerMl: 1.04,
    volumeSolids: 0.25,
    vocGPerL: 640,
    flashMinutes: 12,
    filmUm: 12,
    pressureBar: 1.6,
    pricePerLitre: 44,
  }),
  product('4d000000-0000-4000-8000-000000000004', 'Lantern mid coat', 'mid coat', {
    ratio: '2:1',
    densityGPerMl: 0.94,
    volumeSolids: 0.18,
    vocGPerL: 720,
    filmUm: 9,
    pressureBar: 1.4,
    pricePerLitre: 62,
  }),
  product('4d000000-0000-4000-8000-000000000005', 'Lantern intercoat clear', 'intercoat', {
    ratio: '2:1',
    densityGPerMl: 0.93,
    volumeSolids: 0.22,
    vocGPerL: 690,
    flashMinutes: 12,
    filmUm: 10,
    pressureBar: 1.4,
    pricePerLitre: 40,
  }),
  product('4d000000-0000-4000-8000-000000000006', 'Lantern flake carrier', 'flake carrier', {
    ratio: '1:1',
    densityGPerMl: 0.93,
    volumeSolids: 0.2,
    vocGPerL: 690,
    flashMinutes: 15,
    filmUm: 20,
    tipMm: 2,
    pressureBar: 1.4,
    pricePerLitre: 38,
    note: 'Keep it moving while it is sprayed.',
  }),
  product('4d000000-0000-4000-8000-000000000007', 'Promenade tinting clear', 'tinted clear', {
    chemistry: 'two-pack',
    ratio: '2:1 + 10 %',
    pours: ['hardener', 'reducer'],
    densityGPerMl: 1,
    volumeSolids: 0.45,
    vocGPerL: 430,
    flashMinutes: 15,
    recoatMinutes: 24 * 60,
    potLifeMinutes: 150,
    filmUm: 23,
    additives: [...HARDENERS, ...REDUCERS],
    pricePerLitre: 58,
  }),
  product('4d000000-0000-4000-8000-000000000008', 'Promenade clear', 'clear', {
    chemistry: 'two-pack',
    ratio: '2:1 + 5 %',
    pours: ['hardener', 'reducer'],
    densityGPerMl: 1,
    volumeSolids: 0.44,
    vocGPerL: 430,
    flashMinutes: 12,
    recoatMinutes: 24 * 60,
    potLifeMinutes: 120,
    filmUm: 28,
    pressureBar: 1.8,
    additives: [...HARDENERS, ...REDUCERS],
    pricePerLitre: 54,
  }),
];
