import { CoreError } from '../errors';
import type { Chemistry } from '../products/products';

export interface FlashInput {
  /** Of a nominal coat at 20 C, minutes; from the product's sheet. */
  readonly minutesAt20: number;
  /** C. */
  readonly temperature: number;
  /** Film against a nominal coat. */
  readonly film: number;
  /** Relative humidity 0..1; only waterborne products feel it. 0.5 when missing. */
  readonly humidity?: number | undefined;
  readonly blown?: boolean | undefined;
  readonly chemistry: Chemistry;
}

/** Air moved over the film, against still air; common practice (no source). */
const BLOWN = 0.6;

/**
 * Flash time in minutes: doubles for every 10 C colder, grows with film^1.5, with humidity for waterborne products
 * (0.5 / (1 - RH), within 0.6..3), shortened by moving air. Common practice (no source); the film's dullness decides.
 * @throws CoreError `badStack` for two-pack that is blown: it must never be.
 */
export function flashMinutes(input: FlashInput): number {
  if (input.blown && input.chemistry === 'two-pack') {
    throw new CoreError('badStack', 'Never blow air on a two-pack film; let it flash on its own.');
  }
  const cold = 2 ** ((20 - input.temperature) / 10);
  const humid =
    input.chemistry === 'waterborne'
      ? Math.min(3, Math.max(0.6, 0.5 / Math.max(1e-6, 1 - (input.humidity ?? 0.5))))
      : 1;
  return input.minutesAt20 * cold * input.film ** 1.5 * humid * (input.blown ? BLOWN : 1);
}

/** Dew point in C by the Magnus formula with Sonntag's 1990 constants (17.62, 243.12 C). @param humidity 0..1, above 0. */
export function dewPoint(temperature: number, humidity: number): number {
  const gamma = Math.log(humidity) + (17.62 * temperature) / (243.12 + temperature);
  return (243.12 * gamma) / (17.62 - gamma);
}

/** Surface temperatures nearer to the dew point than this are refused: ISO 8502-4, C. */
export const DEW_MARGIN = 3;

/** Whether a surface is too near to the dew point, and by how much it clears it, C. */
export function dewCheck(
  temperature: number,
  humidity: number,
  surface: number,
): { readonly dew: number; readonly clears: number; readonly ok: boolean } {
  const dew = dewPoint(temperature, humidity);
  const clears = surface - dew;
  return { dew, clears, ok: clears >= DEW_MARGIN };
}
