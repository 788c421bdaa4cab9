import { type Lab, reflectanceToLab } from '../colour/lab';
import { interpolateTable } from '../colour/spectrum';
import { type Reading, READING_LIMITS as LIMITS } from './readings';
import type { CsvProblem } from './readingsCsv';

/** What a file leaves open and the painter has to say. */
export interface ImportHints {
  /** Angle from the mirror of readings that name none, lamp at 45 degrees. */
  readonly aspecular?: number;
  /** Whether reflectances are percent. */
  readonly percent?: boolean;
  /** CSV: which column holds what, by its number. */
  readonly columns?: Readonly<Record<string, number>>;
}

export type ImportQuestion =
  | { readonly ask: 'angle' }
  | { readonly ask: 'percent'; readonly largest: number }
  | { readonly ask: 'columns'; readonly header: readonly string[]; readonly first: readonly string[] };

export type ImportResult =
  | { readonly ok: true; readonly readings: readonly Reading[]; readonly format: 'CSV' | 'CGATS' | 'XML' }
  | { readonly ok: false; readonly problems: readonly CsvProblem[] }
  | { readonly ok: 'ask'; readonly question: ImportQuestion };
export interface RawSample {
  readonly line: number | null;
  readonly name: string;
  readonly geometry: { readonly incidence: number; readonly aspecular: number } | null;
  readonly lab: Lab | null;
  /** Wavelengths and reflectances as written. */
  readonly spectrum: readonly (readonly [number, number])[] | null;
}

export const fail = (line: number | null, message: string): ImportResult => ({
  ok: false,
  problems: [{ line, message }],
});

/** "45as15" or "as-15" as a word of its own: the notation of multi-angle instruments, and nothing else that ends in "as". */
const AS = /(?<![\p{L}\p{N}.,:/+-])(?:(\d{1,2})as|as)(-?\d{1,3})(?![\p{L}\p{N}.,:/])/u;
/** A lamp and a view a reading can have; null for any other pair of figures. */
function believable(incidence: number, aspecular: number): { incidence: number; aspecular: number } | null {
  const fits =
    incidence >= 0 &&
    incidence <= LIMITS.incidenceMax &&
    aspecular >= LIMITS.aspecularMin &&
    aspecular <= LIMITS.aspecularMax;
  return fits ? { incidence, aspecular } : null;
}

/**
 * The angle in a sample's name, where it is clearly one: "45as15", "nose as-15". Dates, fractions, counts and words that end in
 * "as" are none: what is not clear is asked for.
 */
export function angleInName(name: string): { incidence: number; aspecular: number } | null {
  const found = AS.exec(name);
  return found ? believable(Number(found[1] ?? 45), Number(found[2])) : null;
}

/** A geometry in a field made for it: "45as15", "as-15", or lamp and view from the normal, "45:0". */
export function geometryIn(text: string): { incidence: number; aspecular: number } | null {
  const named = angleInName(text.trim());
  if (named) return named;
  const pair = /^(\d{1,2})\s?[:/]\s?(-?\d{1,2})$/.exec(text.trim());
  return pair ? believable(Number(pair[1]), Number(pair[1]) - Number(pair[2])) : null;
}

/** Longest name of a sample that is looked at. */
const NAME_LENGTH = 200;
/** A sample's name without the angle that was read out of it. */
function plainName(name: string): string {
  const short = name.slice(0, NAME_LENGTH);
  const plain = angleInName(short) ? short.replace(AS, '') : short;
  return plain.replace(/[\s_-]+$/, '').trim() || '1';
}

/** Samples as readings: spectra become CIELAB under D65/10, missing angles and scales are asked for, bounds are checked. */
export function toReadings(samples: readonly RawSample[], format: 'CGATS' | 'XML', hints: ImportHints): ImportResult {
  if (!samples.length) return fail(null, 'There are no readings in this file.');
  if (samples.some((s) => !s.geometry) && hints.aspecular === undefined)
    return { ok: 'ask', question: { ask: 'angle' } };
  const spectral = samples.flatMap((s) => (s.lab ? [] : (s.spectrum ?? []).map((p) => p[1])));
  const largest = spectral.reduce((a, b) => Math.max(a, b), 0);
  // A metallic may reach three times white near the mirror; a percent scale seldom stays under five.
  const percent = hints.percent ?? (largest > 5 ? true : largest <= 1.5 ? false : null);
  if (percent === null) return { ok: 'ask', question: { ask: 'percent', largest } };
  const problems: CsvProblem[] = [];
  const counted = new Map<string, number>();
  const readings = samples.map((s): Reading => {
    const { incidence, aspecular } = s.geometry ?? { incidence: 45, aspecular: hints.aspecular! };
    const lab = s.lab ?? spectrumToLab(s.spectrum!, percent);
    const who = s.name ? `“${s.name.slice(0, 30)}”` : 'A reading';
    if (!lab) problems.push({ line: s.line, message: `${who} covers too little of 400 to 700 nm for a colour.` });
    else if (!lab.every(Number.isFinite))
      problems.push({ line: s.line, message: `${who} holds something that is no number.` });
    else if (lab[0] < LIMITS.lMin || lab[0] > LIMITS.lMax)
      problems.push({
        line: s.line,
        message: `${who} has L* ${lab[0].toFixed(1)}; it must lie between 0 and 200. Is it percent or fraction?`,
      });
    if (aspecular < LIMITS.aspecularMin || aspecular > LIMITS.aspecularMax)
      problems.push({ line: s.line, message: `${who} has the angle ${aspecular}°, which no view can have.` });
    const plain = plainName(s.name);
    const key = `${plain}/${incidence}/${aspecular}`;
    const times = (counted.get(key) ?? 0) + 1;
    counted.set(key, times);
    const [l, a, b] = lab ?? [0, 0, 0];
    const spot = (times === 1 ? plain : `${plain} (${times})`).slice(0, 40);
    return { spot, incidence, aspecular, l, a, b };
  });
  return problems.length ? { ok: false, problems: problems.slice(0, 20) } : { ok: true, readings, format };
}

function spectrumToLab(points: readonly (readonly [number, number])[], percent: boolean): Lab | null {
  const sorted = [...points].sort((a, b) => a[0] - b[0]);
  // Ends that are missing by a step or two are held; a visible spectrum it must be.
  if (sorted.length < 8 || sorted[0]![0] > 430 || sorted.at(-1)![0] < 670) return null;
  const values = interpolateTable(
    sorted.map((p) => p[0]),
    sorted.map((p) => p[1]),
  );
  return reflectanceToLab(values.map((v) => v / (percent ? 100 : 1)));
}
