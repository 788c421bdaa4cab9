import { XMLParser, XMLValidator } from 'fast-xml-parser';
import Papa from 'papaparse';
import { reflectanceToLab, labOf, type Lab } from '../colour/lab';
import { interpolateTable } from '../colour/spectrum';
import { decimalIn } from './decimal';
import { READING_LIMITS as LIMITS, type Reading } from './readings';
import { CSV_MAX_LENGTH, parseReadingsCsv, type CsvProblem } from './readingsCsv';

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

interface RawSample {
  readonly line: number | null;
  readonly name: string;
  readonly geometry: { readonly incidence: number; readonly aspecular: number } | null;
  readonly lab: Lab | null;
  /** Wavelengths and reflectances as written. */
  readonly spectrum: readonly (readonly [number, number])[] | null;
}

const fail = (line: number | null, message: string): ImportResult => ({ ok: false, problems: [{ line, message }] });

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
function toReadings(samples: readonly RawSample[], format: 'CGATS' | 'XML', hints: ImportHints): ImportResult {
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

/** Splits a line of CGATS text at blanks or tabs, quoted texts kept together. */
const tokens = (line: string): string[] => [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((m) => m[1] ?? m[2] ?? '');

/**
 * CGATS text (ISO 28178): Lab or spectral columns, the angle in a column ASPECULAR or GEOMETRY, in a keyword
 * MEASUREMENT_GEOMETRY, or in the sample's name ("45as15"). Counts must be right; nothing is taken when anything is wrong.
 */
export function parseCgats(text: string, hints: ImportHints = {}): ImportResult {
  const lines = text.split(/\r?\n/);
  const find = (word: string) => lines.findIndex((l) => l.trim().toUpperCase() === word);
  const keyword = (word: string): { value: string; line: number } | null => {
    const at = lines.findIndex((l) => l.trim().toUpperCase().startsWith(word));
    return at < 0 ? null : { value: tokens(lines[at]!).slice(1).join(' '), line: at + 1 };
  };
  const [formatFrom, formatTo, dataFrom, dataTo] = [
    'BEGIN_DATA_FORMAT',
    'END_DATA_FORMAT',
    'BEGIN_DATA',
    'END_DATA',
  ].map(find) as [number, number, number, number];
  if (formatFrom < 0 || formatTo < formatFrom)
    return fail(null, 'BEGIN_DATA_FORMAT and END_DATA_FORMAT must name the columns.');
  if (dataFrom < 0) return fail(null, 'There is no BEGIN_DATA.');
  if (dataTo < dataFrom)
    return fail(dataFrom + 1, 'BEGIN_DATA is never closed by END_DATA; the file may be cut short.');
  const fields = lines
    .slice(formatFrom + 1, formatTo)
    .flatMap(tokens)
    .map((f) => f.toUpperCase());
  const problems: CsvProblem[] = [];
  const counts = (word: string, is: number, what: string): void => {
    const said = keyword(word);
    if (said && Number(said.value) !== is)
      problems.push({ line: said.line, message: `${word} says ${said.value}, but there are ${is} ${what}.` });
  };
  counts('NUMBER_OF_FIELDS', fields.length, 'columns');
  const rows = lines
    .slice(dataFrom + 1, dataTo)
    .map((l, i) => ({ line: dataFrom + 2 + i, cells: tokens(l) }))
    .filter((r) => r.cells.length);
  counts('NUMBER_OF_SETS', rows.length, 'lines of data');
  const column = (...names: string[]): number => names.map((n) => fields.indexOf(n)).find((c) => c >= 0) ?? -1;
  const lab = [column('LAB_L'), column('LAB_A'), column('LAB_B')];
  const waves = fields.flatMap((f, i) => {
    const m = /^(?:SPECTRAL_)?(?:NM_?)?_?(\d{3})$/.exec(f);
    return m ? [[Number(m[1]), i] as const] : [];
  });
  if (lab.some((c) => c < 0) && !waves.length)
    return fail(formatFrom + 2, 'The columns hold neither LAB_L, LAB_A, LAB_B nor SPECTRAL_… values.');
  const name = column('SAMPLE_NAME', 'SAMPLE_ID', 'SAMPLEID');
  const angle = column('ASPECULAR', 'ASPECULAR_ANGLE', 'GEOMETRY', 'MEASUREMENT_GEOMETRY');
  const lamp = column('INCIDENCE', 'ILLUMINATION_ANGLE');
  const overall = geometryIn(keyword('MEASUREMENT_GEOMETRY')?.value ?? '');
  const samples: RawSample[] = [];
  for (const { line, cells } of rows) {
    if (cells.length !== fields.length) {
      problems.push({ line, message: `This line has ${cells.length} values for ${fields.length} columns.` });
      continue;
    }
    const number = (c: number): number => {
      const raw = cells[c]!;
      const value = decimalIn(raw);
      if (Number.isNaN(value))
        problems.push({ line, message: `“${raw.slice(0, 20)}” in ${fields[c]} is not a number.` });
      return value;
    };
    const own =
      angle >= 0
        ? (geometryIn(cells[angle]!) ?? { incidence: lamp >= 0 ? number(lamp) : 45, aspecular: number(angle) })
        : null;
    samples.push({
      line,
      name: name >= 0 ? cells[name]! : '',
      geometry: own ?? overall ?? (name >= 0 ? angleInName(cells[name]!) : null),
      lab: lab.every((c) => c >= 0) ? labOf(lab.map(number)) : null,
      spectrum: waves.length ? waves.map(([nm, c]) => [nm, number(c)] as const) : null,
    });
  }
  return problems.length ? { ok: false, problems: problems.slice(0, 20) } : toReadings(samples, 'CGATS', hints);
}

type Node = { readonly [key: string]: unknown };
/** A value of the file as text; empty for what is no single value. */
const textOf = (v: unknown): string => (typeof v === 'string' || typeof v === 'number' ? String(v) : '');
const list = (v: unknown): Node[] => (Array.isArray(v) ? v : v === undefined ? [] : [v]) as Node[];

/** First value under a key that matches, however deep. */
function deep(node: unknown, key: RegExp): string | null {
  if (typeof node !== 'object' || node === null) return null;
  for (const [name, value] of Object.entries(node)) {
    if (key.test(name) && typeof value !== 'object') return String(value);
    const found = deep(value, key);
    if (found !== null) return found;
  }
  return null;
}

function objectsOf(node: unknown): Node[] {
  if (typeof node !== 'object' || node === null) return [];
  return Object.entries(node).flatMap(([name, value]) =>
    name === 'Object' ? list(value) : Array.isArray(value) ? value.flatMap(objectsOf) : objectsOf(value),
  );
}

/**
 * XML with colour objects in the manner of ISO 17972: Object elements with ColorValues of a ReflectanceSpectrum or a ColorCIELab,
 * angles from the ColorSpecification they name or from the object's name. Element names from memory. Document types and
 * entities are refused: a file of readings needs none, and they can reach outside.
 */
export function parseColourXml(text: string, hints: ImportHints = {}): ImportResult {
  const declared = text.split(/\r?\n/).findIndex((l) => /<!\s*(DOCTYPE|ENTITY)/i.test(l));
  if (declared >= 0)
    return fail(declared + 1, 'This XML declares a document type or entities. Export it without them.');
  const valid = XMLValidator.validate(text);
  if (valid !== true) return fail(valid.err.line, `This is not well-formed XML: ${valid.err.msg}`);
  const root = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    removeNSPrefix: true,
    parseTagValue: false,
    processEntities: false,
  }).parse(text) as Node;
  const specs = new Map<string, { incidence: number; aspecular: number }>();
  const collect = (node: unknown): void => {
    if (typeof node !== 'object' || node === null) return;
    for (const [name, value] of Object.entries(node)) {
      if (name === 'ColorSpecification' && typeof value === 'object')
        for (const spec of list(value)) {
          const id = spec['@Id'];
          const aspecular = deep(spec, /aspecular/i);
          const lamp = Number(deep(spec, /illuminationangle/i) ?? 45);
          const view = deep(spec, /measurementangle/i);
          if (typeof id !== 'string') continue;
          if (aspecular !== null) specs.set(id, { incidence: lamp, aspecular: Number(aspecular) });
          else if (view !== null) specs.set(id, { incidence: lamp, aspecular: lamp - Number(view) });
        }
      else if (Array.isArray(value)) value.forEach(collect);
      else collect(value);
    }
  };
  collect(root);
  const samples = objectsOf(root).flatMap((object): RawSample[] => {
    const name = textOf(object['@Name'] ?? object['@Id']);
    return list(object['ColorValues']).flatMap((values) => {
      const geometryOf = (v: Node) => specs.get(String(v['@ColorSpecification'])) ?? angleInName(name);
      const spectra = list(values['ReflectanceSpectrum']).map((v): RawSample => {
        const start = Number(v['@StartWL'] ?? 400);
        const numbers = textOf(v['#text']).trim().split(/\s+/).map(Number);
        // Without a stated step the values are taken to end where the visible range usually does in tens.
        const step = Number(v['@IncrementWL'] ?? v['@Increment'] ?? 10);
        return {
          line: null,
          name,
          geometry: geometryOf(v),
          lab: null,
          spectrum: numbers.map((n, i) => [start + i * step, n] as const),
        };
      });
      if (spectra.length) return spectra;
      return list(values['ColorCIELab']).map((v): RawSample => ({
        line: null,
        name,
        geometry: geometryOf(v),
        lab: [Number(v['L']), Number(v['A']), Number(v['B'])],
        spectrum: null,
      }));
    });
  });
  return toReadings(samples, 'XML', hints);
}

/** Reads readings from a file's text, whatever its format: XML, CGATS, CSV. Nothing is taken while anything is wrong or open. */
export function importReadings(text: string, hints: ImportHints = {}): ImportResult {
  if (text.length > CSV_MAX_LENGTH)
    return fail(null, 'This file is over 1 MB. A file of readings is a few lines; check that it is the right one.');
  try {
    return readAny(text.replace(/^\uFEFF/, ''), hints);
  } catch {
    // A file may be nested or mangled beyond what a reader takes: then nothing is taken from it, and that is said.
    return fail(null, 'This file could not be read: it is not built like a file of readings. Export it again, as CSV.');
  }
}

function readAny(plain: string, hints: ImportHints): ImportResult {
  if (plain.trimStart().startsWith('<')) return parseColourXml(plain, hints);
  if (plain.split('\n').some((l) => l.trim().toUpperCase() === 'BEGIN_DATA_FORMAT')) return parseCgats(plain, hints);
  const csv = parseReadingsCsv(plain, hints.columns);
  if (csv.ok) return { ok: true, readings: csv.readings, format: 'CSV' };
  if (csv.header && !hints.columns)
    return { ok: 'ask', question: { ask: 'columns', header: csv.header.names, first: csv.header.first } };
  return { ok: false, problems: csv.problems };
}

const fixed = (v: number) => v.toFixed(3);

/** Readings as CGATS text (ISO 28178), the geometry in a column. */
export function toCgats(readings: readonly Reading[], originator = 'Steady Gleam'): string {
  return [
    'CGATS.17',
    `ORIGINATOR "${originator.replace(/"/g, "'")}"`,
    'NUMBER_OF_FIELDS 6',
    'BEGIN_DATA_FORMAT',
    'SAMPLE_ID SAMPLE_NAME GEOMETRY LAB_L LAB_A LAB_B',
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${readings.length}`,
    'BEGIN_DATA',
    ...readings.map(
      (r, i) =>
        `${i + 1} "${r.spot.replace(/"/g, "'")}" ${r.incidence}as${r.aspecular} ${[r.l, r.a, r.b].map(fixed).join(' ')}`,
    ),
    'END_DATA',
    '',
  ].join('\n');
}

const escapeXml = (s: string) =>
  s.replace(/[<>&"']/g, (c) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;', '"': '&quot;', "'": '&apos;' })[c]!);

/** Readings as XML colour objects in the manner of ISO 17972. */
export function toColourXml(readings: readonly Reading[]): string {
  const specs = [...new Map(readings.map((r) => [`${r.incidence}as${r.aspecular}`, r])).entries()];
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<CxF>',
    '  <Resources>',
    '    <ObjectCollection>',
    ...readings.map(
      (r, i) =>
        `      <Object ObjectType="Standard" Name="${escapeXml(r.spot)}" Id="o${i + 1}"><ColorValues><ColorCIELab ColorSpecification="${r.incidence}as${r.aspecular}"><L>${fixed(r.l)}</L><A>${fixed(r.a)}</A><B>${fixed(r.b)}</B></ColorCIELab></ColorValues></Object>`,
    ),
    '    </ObjectCollection>',
    '    <ColorSpecificationCollection>',
    ...specs.map(
      ([id, r]) =>
        `      <ColorSpecification Id="${id}"><TristimulusSpec><Illuminant>D65</Illuminant><Observer>10_Degree</Observer></TristimulusSpec><MeasurementSpec><GeometryChoice><SingleAngle><IlluminationAngle>${r.incidence}</IlluminationAngle><AspecularAngle>${r.aspecular}</AspecularAngle></SingleAngle></GeometryChoice></MeasurementSpec></ColorSpecification>`,
    ),
    '    </ColorSpecificationCollection>',
    '  </Resources>',
    '</CxF>',
    '',
  ].join('\n');
}

/**
 * Readings as the CSV that {@link parseReadingsCsv} takes. Names that a spreadsheet would compute are escaped.
 * @param exact every digit is kept, so that they are read back as the same numbers
 */
export function toReadingsCsv(readings: readonly Reading[], exact = false): string {
  const figure = (v: number) => (exact ? v : Number(fixed(v)));
  const rows = readings.map((r) => [r.spot, r.incidence, r.aspecular, figure(r.l), figure(r.a), figure(r.b)]);
  return `${Papa.unparse([['spot', 'incidence', 'aspecular', 'L', 'a', 'b'], ...rows], { escapeFormulae: true, newline: '\n' })}\n`;
}
