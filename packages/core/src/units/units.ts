/** What a figure measures; inside everything is metric, the interface converts at its edge. */
export type Measure =
  | 'volume'
  | 'mass'
  | 'area'
  | 'length'
  | 'distance'
  | 'film'
  | 'pressure'
  | 'temperature'
  | 'perArea'
  | 'density'
  | 'voc'
  | 'speed'
  | 'dose'
  | 'priceByVolume'
  | 'priceByArea';
export type UnitSystem = 'metric' | 'us';

interface Unit {
  readonly name: string;
  /** Shown = metric x factor + offset. */
  readonly factor: number;
  readonly offset?: number;
  /** Decimals that are worth showing. */
  readonly digits: number;
}

/** ml in a US fluid ounce: 231 in3 / 128 (NIST Handbook 44, appendix C). */
export const ML_PER_FL_OZ = (231 * 2.54 ** 3) / 128;
/** g in an avoirdupois ounce (NIST Handbook 44, appendix C). */
export const G_PER_OZ = 28.349523125;
/** m2 in a square foot. */
export const M2_PER_FT2 = 0.3048 ** 2;
/** um in a mil. */
export const UM_PER_MIL = 25.4;
/** psi in a bar: 100 000 Pa over 6894.757 Pa. */
export const PSI_PER_BAR = 14.503773773;
const ML_PER_GAL = ML_PER_FL_OZ * 128;
const G_PER_LB = G_PER_OZ * 16;

const UNITS: Record<UnitSystem, Record<Measure, Unit>> = {
  metric: {
    volume: { name: 'ml', factor: 1, digits: 0 },
    mass: { name: 'g', factor: 1, digits: 1 },
    area: { name: 'm²', factor: 1, digits: 2 },
    length: { name: 'm', factor: 1, digits: 2 },
    distance: { name: 'cm', factor: 1, digits: 0 },
    film: { name: 'µm', factor: 1, digits: 0 },
    pressure: { name: 'bar', factor: 1, digits: 1 },
    temperature: { name: '°C', factor: 1, digits: 0 },
    perArea: { name: 'l/m²', factor: 1, digits: 2 },
    density: { name: 'g/ml', factor: 1, digits: 2 },
    voc: { name: 'g/l', factor: 1, digits: 0 },
    speed: { name: 'cm/s', factor: 1, digits: 0 },
    dose: { name: 'g/l', factor: 1, digits: 1 },
    priceByVolume: { name: 'a litre', factor: 1, digits: 2 },
    priceByArea: { name: 'per m²', factor: 1, digits: 2 },
  },
  us: {
    volume: { name: 'fl oz', factor: 1 / ML_PER_FL_OZ, digits: 2 },
    mass: { name: 'oz', factor: 1 / G_PER_OZ, digits: 2 },
    area: { name: 'ft²', factor: 1 / M2_PER_FT2, digits: 1 },
    length: { name: 'ft', factor: 1 / 0.3048, digits: 2 },
    distance: { name: 'in', factor: 1 / 2.54, digits: 1 },
    film: { name: 'mil', factor: 1 / UM_PER_MIL, digits: 2 },
    pressure: { name: 'psi', factor: PSI_PER_BAR, digits: 0 },
    temperature: { name: '°F', factor: 1.8, offset: 32, digits: 0 },
    perArea: { name: 'fl oz/ft²', factor: (1000 / ML_PER_FL_OZ) * M2_PER_FT2, digits: 2 },
    density: { name: 'lb/gal', factor: ML_PER_GAL / G_PER_LB, digits: 2 },
    voc: { name: 'lb/gal', factor: ML_PER_GAL / 1000 / G_PER_LB, digits: 2 },
    speed: { name: 'in/s', factor: 1 / 2.54, digits: 1 },
    priceByVolume: { name: 'a quart', factor: (ML_PER_FL_OZ * 32) / 1000, digits: 2 },
    priceByArea: { name: 'per ft²', factor: M2_PER_FT2, digits: 2 },
    dose: { name: 'oz/qt', factor: (ML_PER_FL_OZ * 32) / 1000 / G_PER_OZ, digits: 2 },
  },
};

/** A batch as large as this or larger is told in quarts, fl oz. */
const QUARTS_FROM = 64;

export function unitName(measure: Measure, system: UnitSystem): string {
  return UNITS[system][measure].name;
}

export function unitDigits(measure: Measure, system: UnitSystem): number {
  return UNITS[system][measure].digits;
}

/** A metric figure in the units that are shown. */
export function toShown(measure: Measure, metric: number, system: UnitSystem): number {
  const { factor, offset = 0 } = UNITS[system][measure];
  return metric * factor + offset;
}

/** A figure as it was typed, in metric; inverse of {@link toShown}. */
export function fromShown(measure: Measure, shown: number, system: UnitSystem): number {
  const { factor, offset = 0 } = UNITS[system][measure];
  return (shown - offset) / factor;
}

/** Factor from what is shown, its name and decimals; a large US volume is told in quarts. */
function toldIn(measure: Measure, metric: number, system: UnitSystem): { scale: number; name: string; digits: number } {
  const { name, digits } = UNITS[system][measure];
  if (measure !== 'volume' || system === 'metric') return { scale: 1, name, digits };
  const ounces = Math.abs(toShown('volume', metric, system));
  return ounces >= QUARTS_FROM
    ? { scale: 1 / 32, name: 'qt', digits: 2 }
    : { scale: 1, name, digits: ounces < 10 ? 2 : 1 };
}

/** A figure with its unit, as it is read: large US volumes in quarts. */
export function sayMeasure(measure: Measure, metric: number, system: UnitSystem, digits?: number): string {
  if (digits !== undefined) return `${toShown(measure, metric, system).toFixed(digits)} ${unitName(measure, system)}`;
  const told = toldIn(measure, metric, system);
  return `${(toShown(measure, metric, system) * told.scale).toFixed(told.digits)} ${told.name}`;
}

/** From one figure to another, both in the unit the larger is told in. */
export function sayRange(measure: Measure, low: number, high: number, system: UnitSystem): string {
  const { scale, name, digits } = toldIn(measure, high, system);
  const figure = (v: number) => (toShown(measure, v, system) * scale).toFixed(digits);
  return `${figure(low)} to ${figure(high)} ${name}`;
}

/** A figure with the range it lies in, all in the unit the largest of them is told in. */
export function sayWithin(measure: Measure, value: number, low: number, high: number, system: UnitSystem): string {
  const { scale, name, digits } = toldIn(measure, Math.max(value, high), system);
  const figure = (v: number) => (toShown(measure, v, system) * scale).toFixed(digits);
  return `${figure(value)} ${name}, ${figure(low)} to ${figure(high)}`;
}
