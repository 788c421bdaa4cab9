/** What a scale shows. */
export interface Weighed {
  /** ms, of whatever clock the receiver goes by. */
  readonly at: number;
  readonly grams: number;
  readonly stable: boolean;
}

export type ScaleFault = 'not grams' | 'too much' | 'no figure';

/** A line of a scale: a weight, with null where nothing of it says whether it rests; or why it is none. */
export type ScaleLine =
  | { readonly is: 'weight'; readonly grams: number; readonly stable: boolean | null }
  | { readonly is: 'fault'; readonly why: ScaleFault; readonly unit?: string };

/**
 * How a scale writes a line: where it marks that the weight rests. Sign, figure and unit are understood wherever they stand.
 * The forms are what is common (from memory); the marks are words and letters that scales are seen to send.
 */
export interface LineForm {
  readonly id: string;
  readonly name: string;
  readonly example: string;
  /** `words`: a mark before or behind; `unit`: the unit stands there only while it rests; `none`: it rests when it no longer changes. */
  readonly rests: 'words' | 'unit' | 'none';
}

export const LINE_FORMS: readonly LineForm[] = [
  { id: 'words', name: 'a mark, the figure, the unit', example: 'ST  +  123.4 g', rests: 'words' },
  { id: 'unit', name: 'the unit only while it rests', example: '+  123.4 g', rests: 'unit' },
  { id: 'plain', name: 'figure and unit, nothing else', example: '123.4 g', rests: 'none' },
];

const RESTS = ['S', 'ST', 'STABLE', 'OK'];
const MOVES = ['D', 'M', 'U', 'SD', 'US', 'MOVING', 'DYN', 'DYNAMIC', 'UNSTABLE', '?', '*', '~'];
/** Grams a unit stands for. */
const UNITS: Readonly<Record<string, number>> = { g: 1, gr: 1, gram: 1, grams: 1, kg: 1000, mg: 0.001 };
const FOREIGN: Readonly<Record<string, string>> = {
  lb: 'pounds',
  lbs: 'pounds',
  oz: 'ounces',
  ozt: 'troy ounces',
  ct: 'carats',
  dwt: 'pennyweights',
  gn: 'grains',
};
const OVER = /(^|[^A-Z])(OL|OVER|OVERLOAD|HI|ERR\w*|E{3,})([^A-Z]|$)|-{4,}|\^{3,}|_{4,}/;
const FIGURE = /([+-]?)\s*(\d{1,7}(?:[.,]\d{1,5})?)/g;
/** A line is never longer. */
const LONGEST = 120;

/** Reads a line of a scale. Anything that is no single weight in grams is refused whole. */
export function readScaleLine(line: string, form: LineForm): ScaleLine {
  const text = line
    .slice(0, LONGEST)
    .replace(/\p{Cc}+/gu, ' ')
    .trim();
  const upper = text.toUpperCase();
  if (OVER.test(upper)) return { is: 'fault', why: 'too much' };
  const figures = [...text.matchAll(FIGURE)];
  const words = text
    .replace(FIGURE, ' ')
    .split(/[\s,;:]+/)
    .filter(Boolean);
  const unit = words.map((w) => w.toLowerCase()).find((w) => w in UNITS || w in FOREIGN);
  if (unit !== undefined && unit in FOREIGN) return { is: 'fault', why: 'not grams', unit: FOREIGN[unit]! };
  if (figures.length !== 1) return { is: 'fault', why: 'no figure' };
  // Without a unit it is one of the scale's own, which is grams where the form leaves it out on purpose.
  if (unit === undefined && form.rests !== 'unit') return { is: 'fault', why: 'no figure' };
  const [, sign, figure] = figures[0]!;
  const grams = (sign === '-' ? -1 : 1) * Number(figure!.replace(',', '.')) * UNITS[unit ?? 'g']!;
  const marks = words.map((w) => w.toUpperCase());
  const stable =
    form.rests === 'unit'
      ? unit !== undefined
      : marks.some((m) => MOVES.includes(m))
        ? false
        : form.rests === 'words' && marks.some((m) => RESTS.includes(m))
          ? true
          : form.rests === 'words'
            ? false
            : null;
  return { is: 'weight', grams, stable };
}

/** What is wrong with a line, as a sentence with what to do. */
export function sayScaleFault(fault: Extract<ScaleLine, { is: 'fault' }>): string {
  switch (fault.why) {
    case 'not grams':
      return `The scale sends ${fault.unit ?? 'another unit'}. Switch it to grams on the scale itself; until then nothing of it is taken.`;
    case 'too much':
      return 'The scale says that it is overloaded or at fault. Take the cup off, let it come to zero, and set it back; the running total is kept.';
    case 'no figure':
      return 'What the scale sends can’t be read as one weight. Choose its line form or its speed under Shop, devices; nothing of it is taken.';
  }
}

/** A weight rests when it stayed the same for so long, ms; ours. */
const RESTS_AFTER = 800;
/** And moved by no more than this, g. */
const RESTS_WITHIN = 0.1 + 1e-9;

/** Weights out of lines, one after the other; without a mark a weight rests when it no longer changes. */
export function weigher(form: LineForm): (line: string, at: number) => Weighed | Extract<ScaleLine, { is: 'fault' }> {
  let since: { grams: number; at: number } | null = null;
  return (line, at) => {
    const read = readScaleLine(line, form);
    if (read.is === 'fault') return read;
    // A clock that goes back begins anew.
    if (!since || at < since.at || Math.abs(read.grams - since.grams) > RESTS_WITHIN) since = { grams: read.grams, at };
    return { at, grams: read.grams, stable: read.stable ?? at - since.at >= RESTS_AFTER };
  };
}

/** Cuts what comes in into lines; the end that is not finished waits for the rest. */
export function lineCutter(): (chunk: string) => string[] {
  let rest = '';
  return (chunk) => {
    const parts = (rest + chunk).split(/\r\n|\n|\r/);
    rest = (parts.pop() ?? '').slice(-2 * LONGEST);
    return parts.filter((p) => p.trim() !== '');
  };
}
