import { crestAndTrough } from '../spraying/passes';
import { createSheet, layAll, type GunSample, type PracticeGun, type Sheet } from './deposit';
import { widthOf, type CoatFigures, type Lesson } from './lessons';
import { handOfPasses, passesOf, type PassRow, type PractisedHand } from './passRows';

/** A coat with what is said of it. */
export interface CoatReview {
  readonly figures: CoatFigures;
  readonly rows: readonly PassRow[];
  /** Of the whole panel, coats; see {@link Sheet}. */
  readonly film: Float64Array;
  readonly hand: PractisedHand | null;
  /** Its passes go from the upper edge to the lower one: only then is there something to say of it. */
  readonly isCovered: boolean;
  /** 100 for an even coat of the film that was meant; less by what is off. */
  readonly points: number;
}

/** Strips at the edges and at the break, and what is left out of the middle beside them, cm; ours. */
const [EDGE_STRIP, BREAK_STRIP, OFF_MIDDLE] = [5, 4, 12] as const;
/** Film along an edge that was cut in, coats: falls to nothing over its width; ours. */
const CUT_IN = 0.5;

/** The panel of a lesson before its coat: bare, or with its edges cut in. */
export function lessonSheet(lesson: Lesson): Sheet {
  const sheet = createSheet(widthOf(lesson), lesson.heightCm);
  if (lesson.cutInCm > 0)
    for (let i = 0; i < sheet.columns; i++) {
      const x = (i + 0.5) * sheet.cellCm;
      const thick = CUT_IN * Math.max(0, 1 - Math.min(x, sheet.widthCm - x) / lesson.cutInCm);
      for (let j = 0; j < sheet.rows; j++) sheet.film[j * sheet.columns + i] = thick;
    }
  return sheet;
}

/** @param sheet of the lesson, the coat laid on it @param rows its passes */
export function figuresOf(sheet: Sheet, lesson: Lesson, rows: readonly PassRow[]): CoatFigures {
  const { columns, rows: lines, film, cellCm, widthCm } = sheet;
  const byColumn = new Float64Array(columns);
  const byLine = new Float64Array(lines);
  const gaps = lesson.panels.slice(0, -1).map((_, i) => lesson.panels.slice(0, i + 1).reduce((a, b) => a + b, 0));
  const off = (x: number) => Math.min(x, widthCm - x, ...gaps.map((g) => Math.abs(x - g)));
  const middle = Array.from({ length: columns }, (_, i) => off((i + 0.5) * cellCm) > OFF_MIDDLE);
  const many = middle.filter(Boolean).length;
  for (let j = 0; j < lines; j++)
    for (let i = 0; i < columns; i++) {
      const v = film[j * columns + i]!;
      byColumn[i]! += v / lines;
      if (middle[i]) byLine[j]! += v / many;
    }
  const meanWhere = (at: (x: number) => boolean): number => {
    let [sum, n] = [0, 0];
    byColumn.forEach((v, i) => {
      if (!at((i + 0.5) * cellCm)) return;
      sum += v;
      n++;
    });
    return n ? sum / n : 0;
  };
  const all = meanWhere(() => true);
  const inMiddle = Math.max(1e-9, byLine.reduce((s, v) => s + v, 0) / lines);
  const { crest, trough } = crestAndTrough(byLine);
  const laid = all * widthCm * sheet.heightCm;
  return {
    film: all,
    across: inMiddle > 1e-9 ? (crest - trough) / inMiddle : 0,
    edges: [meanWhere((x) => x < EDGE_STRIP) / inMiddle, meanWhere((x) => x > widthCm - EDGE_STRIP) / inMiddle],
    gap: gaps.length ? meanWhere((x) => gaps.some((g) => Math.abs(x - g) < BREAK_STRIP)) / inMiddle : null,
    beyond: laid + sheet.beyond > 0 ? sheet.beyond / (laid + sheet.beyond) : 0,
    passes: rows.length,
  };
}

/** How much every figure counts: a half of crest to trough, an edge or break off by six tenths, film off by half (ln) each cost alike; ours. */
const [ACROSS, EDGES, GAP, FILM] = [0.5, 0.6, 0.6, 0.5] as const;

/** How far a coat is from an even one of the film that was meant: 0 is there. */
export function faultOf({ across, edges, gap, film }: CoatFigures): number {
  const edge = Math.max(...edges.map((e) => Math.abs(e - 1)));
  return (
    across / ACROSS +
    edge / EDGES +
    (gap === null ? 0 : Math.abs(gap - 1) / GAP) +
    Math.abs(Math.log(Math.max(0.02, film))) / FILM
  );
}

/** Looks at a coat. @param samples of the gun */
export function reviewCoat(samples: readonly GunSample[], gun: PracticeGun, lesson: Lesson): CoatReview {
  const rows = passesOf(samples, widthOf(lesson));
  const sheet = layAll(lessonSheet(lesson), gun, samples);
  const figures = figuresOf(sheet, lesson, rows);
  const lines = rows.map((r) => r.y);
  const isCovered =
    rows.length > 2 && Math.min(...lines) <= gun.fanCm / 2 && Math.max(...lines) >= lesson.heightCm - gun.fanCm / 2;
  return {
    ...{ figures, rows, isCovered },
    film: sheet.film,
    hand: handOfPasses(rows, gun),
    points: Math.round(100 * Math.exp(-faultOf(figures) / 2)),
  };
}
