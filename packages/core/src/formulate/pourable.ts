import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { logScatter, DEFAULT_SCATTER, type Scatter } from '../matching/risk';
import { findStopWindow } from '../matching/stopWindow';
import { coverFromParts, depthFromParts } from '../materials/mixStrength';
import type { Candidate } from './screen';
import { createRefiner } from './refine';
import { MOST_COVER, MOST_DEPTH, type FormulateInput, type Rated } from './shelf';

/** A part of a mix as it is poured. */
export interface PouredPart {
  readonly kind: 'flake' | 'dye';
  readonly id: string;
  /** To 100 parts of carrier. */
  readonly parts: number;
}

/** A mix as a person can pour it, for one count of coats. */
export interface Pourable {
  readonly groundId: string;
  readonly coats: number;
  readonly parts: readonly PouredPart[];
  /** Cover of a coat by each kind of flakes and depth of each dye, after rounding. */
  readonly pigments: readonly { readonly pigmentId: string; readonly cover: number }[];
  readonly dyes: readonly { readonly dyeId: string; readonly depth: number }[];
  /** As rounded, by the model. */
  readonly labs: readonly Lab[];
  readonly rmsDe: number;
  readonly maxDe: number;
  readonly toleranceRatio: number;
  /** How far rounding moved its colours at most, CIEDE2000. */
  readonly rounded: number;
  /** Coats between which every angle passes; null where none does. */
  readonly window: readonly [number, number] | null;
  /** Width of the window in units of the painter's scatter; 0 without one. */
  readonly forgiveness: number;
  /** Cans that are opened, the carrier's with them. */
  readonly cans: number;
}

/** Parts to 100 of carrier are rounded to this: what a scale shows of a batch of 100 g. */
export const PART_STEP = 0.1;
/** What a part has to be worth at the worst angle, dE00, for its can to be opened; ours. */
const HARDLY = 0.1;
/** What rounding may move a colour by, CIEDE2000. */
const MOVED = 0.3;
/** Coats on either side of the count that its window is looked for in. */
const LADDER = [0.25, 0.5, 0.7, 0.85, 1, 1.15, 1.35, 1.7, 2.2] as const;

/** Parts of an effect concentrate to 100 of carrier for a depth of flakes in a coat; inverse of `coverFromParts`. */
const partsForTau = (tau: number, filmUm: number, thicknessUm: number): number =>
  tau / -Math.log(1 - coverFromParts(1, 100, filmUm, thicknessUm));
const partsForDye = (depth: number, filmUm: number): number => depth / depthFromParts(1, 100, filmUm);

/**
 * A mix as it can be poured, for every count that its colours fit into: parts rounded to what a scale shows and looked at again, one
 * step up or down where that is nearer, and how wide its stop window is.
 */
export function pourables(input: FormulateInput, of: Rated, scatter: Scatter = DEFAULT_SCATTER): Pourable[] {
  const { shelf, filmUm, target, style, counts } = input;
  const refiner = createRefiner(input);
  const ground = shelf.grounds.find((g) => g.id === of.groundId)!;
  const places = of.pigments.map((p) => shelf.pigments.findIndex((s) => s.id === p.pigmentId));
  const inks = of.dyes.map((d) => shelf.dyes.findIndex((s) => s.id === d.dyeId));
  const from: Candidate = { ground, pigments: places.map((p) => [p, 0]), dyes: inks.map((d) => [d, 0]), off: 0 };
  const film = of.coats * style.film;
  const total = [...of.pigments.map((p) => p.tau * film), ...of.dyes.map((d) => d.depth * film)];
  const perPart = [
    ...places.map((p) => 1 / partsForTau(1, filmUm, shelf.pigments[p]!.thicknessUm)),
    ...inks.map(() => 1 / partsForDye(1, filmUm)),
  ];
  return counts.flatMap((coats): Pourable[] => {
    const each = coats * style.film;
    const amounts = total.map((v) => v / each);
    if (amounts.some((v, i) => v > (i < places.length ? -Math.log(1 - MOST_COVER) : MOST_DEPTH))) return [];
    const exact = refiner.look(from, total, coats);
    const look = (parts: readonly number[], n = coats) =>
      refiner.look(
        from,
        parts.map((p, i) => p * perPart[i]! * n * style.film),
        n,
      );
    const { parts, labs, said, moved } = roundedParts(
      amounts.map((v, i) => v / perPart[i]!),
      (tried) => {
        const seen = look(tried);
        const off = Math.max(...seen.map((lab, g) => de2000(lab, exact[g]!)));
        return { parts: tried, labs: seen, said: refiner.scored(seen), moved: off };
      },
    );
    const steps = LADDER.map((f) => f * coats);
    const stop = findStopWindow(target, [0, ...steps], [look(parts, 0.001), ...steps.map((n) => look(parts, n))], 3);
    const best = Math.max(0.5, stop.best.coats);
    return [
      {
        groundId: of.groundId,
        coats,
        // What comes to less than a step is not opened for.
        parts: parts.flatMap((p, i): PouredPart[] => {
          if (!(p > 0)) return [];
          return i < places.length
            ? [{ kind: 'flake', id: of.pigments[i]!.pigmentId, parts: p }]
            : [{ kind: 'dye', id: of.dyes[i - places.length]!.dyeId, parts: p }];
        }),
        pigments: of.pigments.flatMap((p, i) =>
          parts[i]! > 0 ? [{ pigmentId: p.pigmentId, cover: -Math.expm1(-parts[i]! * perPart[i]!) }] : [],
        ),
        dyes: of.dyes.flatMap((d, j) => {
          const at = places.length + j;
          return parts[at]! > 0 ? [{ dyeId: d.dyeId, depth: parts[at]! * perPart[at]! }] : [];
        }),
        labs,
        ...{ rmsDe: said.rmsDe, maxDe: said.maxDe, toleranceRatio: said.toleranceRatio },
        rounded: moved,
        window: stop.window,
        forgiveness: stop.window
          ? (stop.window[1] - Math.max(stop.window[0], 0.25)) / (logScatter(best, scatter) * best)
          : 0,
        cans: 1 + parts.filter((p) => p > 0).length,
      },
    ];
  });
}

/** A rounding that was looked at. */
interface Tried {
  readonly parts: readonly number[];
  readonly labs: readonly Lab[];
  readonly said: { readonly rmsDe: number; readonly maxDe: number; readonly toleranceRatio: number };
  /** From the unrounded mix, CIEDE2000. */
  readonly moved: number;
}

/**
 * Parts in steps of a scale: of every part the step below and the one above, and of all their combinations the one nearest to the
 * target among those that move the colour by what hardly shows, else the one that moves it least; without the parts that are not
 * worth a can.
 */
function roundedParts(parts: readonly number[], look: (parts: readonly number[]) => Tried): Tried {
  const step = (v: number) => Math.max(0, Number((v * PART_STEP).toFixed(3)));
  const choices = parts.reduce<readonly number[][]>(
    (all, v) => all.flatMap((c) => [Math.floor(v / PART_STEP), Math.ceil(v / PART_STEP)].map((n) => [...c, step(n)])),
    [[]],
  );
  const better = (a: Tried, b: Tried): Tried => {
    const [fine, other] = [a.moved <= MOVED, b.moved <= MOVED];
    if (fine !== other) return fine ? a : b;
    return fine ? (b.said.maxDe < a.said.maxDe ? b : a) : b.moved < a.moved ? b : a;
  };
  let best = choices.map(look).reduce(better);
  for (let i = 0; i < parts.length; i++) {
    if (!(best.parts[i]! > 0)) continue;
    const without = look(best.parts.map((p, k) => (k === i ? 0 : p)));
    if (without.moved <= MOVED && without.said.maxDe < best.said.maxDe + HARDLY) best = without;
  }
  return best;
}

/** Of many those that no other beats in match, safety, coats and cans; the nearest first. */
export function paretoPourables(all: readonly Pourable[]): Pourable[] {
  const figures = (p: Pourable) => [Math.max(0.3, p.toleranceRatio), -p.forgiveness, p.coats, p.cans];
  const beats = (a: Pourable, b: Pourable): boolean => {
    const [x, y] = [figures(a), figures(b)];
    return x.every((v, i) => v <= y[i]! + 1e-9) && x.some((v, i) => v < y[i]! - 1e-9);
  };
  // What rounding moves too far is shown only where there is nothing else.
  const near = all.filter((p) => p.rounded <= MOVED);
  // The same cans are one mix, whatever its start: the nearest of them.
  const each = new Map<string, Pourable>();
  for (const p of near.length ? near : all) {
    const key = JSON.stringify([p.groundId, p.coats, p.parts.map(({ id }) => id).sort()]);
    const known = each.get(key);
    if (!known || p.toleranceRatio < known.toleranceRatio) each.set(key, p);
  }
  return [...each.values()]
    .filter((p) => ![...each.values()].some((o) => beats(o, p)))
    .sort((a, b) => a.toleranceRatio - b.toleranceRatio || b.forgiveness - a.forgiveness);
}
