import { createRandom, normal, seedOf } from '../numeric/random';

/** Air in the booth, and the part that is sprayed. */
export interface Climate {
  /** C. */
  readonly airC: number;
  /** Relative, fraction. */
  readonly humidity: number;
  /** C; null where only the air is measured. */
  readonly surfaceC: number | null;
}

/** Bounds of a believable booth. */
const [COLDEST, HOTTEST] = [-20, 60] as const;
const LONGEST = 120;

/** A line of a thermometer: what it says, or why it can't be. */
export type ClimateLine =
  { readonly is: 'climate'; readonly climate: Climate } | { readonly is: 'fault'; readonly said: string };

const toC = (value: number, unit: string): number => (unit === 'f' ? ((value - 32) * 5) / 9 : value);

/**
 * Reads a line of a thermometer with humidity: a temperature with its unit or first, the humidity with a percent sign or next, and
 * the surface last where it is measured.
 */
export function readClimateLine(line: string): ClimateLine {
  const found = [
    ...line
      .slice(0, LONGEST)
      .toLowerCase()
      .matchAll(/(-?\d{1,3}(?:[.,]\d{1,3})?)\s*(°?\s*[cf](?![a-z])|%)?/g),
  ].map(([, figure, unit]) => ({ value: Number(figure!.replace(',', '.')), unit: (unit ?? '').replace(/[°\s]/g, '') }));
  const said = (words: string): ClimateLine => ({ is: 'fault', said: `${words} Nothing of it is taken.` });
  const wet = found.findIndex((f) => f.unit === '%');
  const [humid] = found.splice(wet >= 0 ? wet : 1, 1);
  const [air, surface] = found;
  if (!air || !humid) return said('The thermometer sends no temperature with a humidity.');
  const airC = toC(air.value, air.unit);
  const surfaceC = surface ? toC(surface.value, surface.unit) : null;
  if ([airC, surfaceC ?? airC].some((t) => t < COLDEST || t > HOTTEST))
    return said(`The thermometer says ${airC.toFixed(1)} °C, which no booth is.`);
  if (humid.value < 0 || humid.value > 100) return said(`The thermometer says ${humid.value} % humidity.`);
  return { is: 'climate', climate: { airC, humidity: humid.value / 100, surfaceC } };
}

const HOUR = 3_600_000;
/** Coldest and warmest hour of the day, local; how cold, how warm, C. Ours. */
const [COLDEST_AT, DAY, MORNING_C, WARMS_BY] = [5, 24, 15.5, 8] as const;

/** Seed of the simulated climate of a job, the same on server and in the page: of nothing that is hidden. */
export const deviceSeed = (jobId: string): number => seedOf('devices', jobId);

/** The air of a day warms and dries till the afternoon; the part follows an hour behind. @param at ms since 1970. @param zone minutes ahead of UTC */
export function simulatedClimate(seed: number, at: number, zone = 0): Climate {
  const airAt = (t: number): number => {
    const hour = ((t / HOUR + zone / 60) % DAY) - COLDEST_AT;
    const random = createRandom(seedOf(seed, 'air', Math.floor(t / HOUR / DAY)));
    return MORNING_C + 1.5 * normal(random) + (WARMS_BY / 2) * (1 - Math.cos((2 * Math.PI * hour) / DAY));
  };
  const airC = airAt(at);
  // As much water stays in the air: what it can hold grows by some 6 % a degree.
  const humidity = Math.min(0.95, Math.max(0.2, 0.68 * Math.exp(-0.06 * (airC - MORNING_C))));
  const round = (v: number) => Number(v.toFixed(1));
  return { airC: round(airC), humidity: Number(humidity.toFixed(2)), surfaceC: round(airAt(at - HOUR)) };
}
