import { coatGrid } from '../matching/stopWindow';
import { normalCdf, THREE_NODES } from '../numeric/normal';
import {
  cellTable,
  cellAt,
  EYE_SCATTER,
  SLIP,
  seenBetween,
  type EyeRead,
  type PossibleLadder,
  type Seen,
  NODES,
  HUE_AXIS,
  geometriesOf,
} from './eyeSight';
import { EYE_VIEWS, VERDICTS, USUAL_CUTS, type EyeView, type RungVerdict, type Verdict } from './eyeWords';
import { labsAt, LADDER_LAST, toLabs, type Ladder } from './fittedLadder';

/** Film of a rung about its count: a part of the root of it, and a part of a count. */
const [RUNG_SHARE, RUNG_COUNT] = [0.08, 0.1] as const;

/** Cover that an eye tells apart as it does one dE00, fraction; ours. */
const COVER_STEP = 0.04;

/** Counts that are looked at. */
const COUNTS: readonly number[] = coatGrid(0.5, 8, 0.05);

/** How a film of a ladder is seen from a place beside a target. */
type SeenAt = (film: number, view: EyeView) => Seen;

/** @param best count that is matched */
function seeing({ aspecular, cover }: EyeRead, ladder: Ladder, best: number): SeenAt {
  if (cover !== undefined)
    return (film) => {
      const sparser = (Math.exp(-cover * film) - Math.exp(-cover * best)) / COVER_STEP;
      const de = Math.abs(sparser);
      return { de, lighter: normalCdf(sparser / (0.15 + 0.3 * de)), a: 0, b: 0 };
    };
  const target = toLabs(labsAt(ladder, best));
  const labs = new Float64Array(ladder.outputs);
  return (film, view) => seenBetween(toLabs(labsAt(ladder, film, labs)), target, geometriesOf(view, aspecular));
}

/** The same from tables over the film, for many films beside one target. */
function tabledSeeing(read: EyeRead, ladder: Ladder, best: number, views: readonly EyeView[]): SeenAt {
  const direct = seeing(read, ladder, best);
  const step = 0.1;
  const films = Array.from({ length: Math.round(LADDER_LAST / step) + 1 }, (_, i) => i * step);
  const tables = new Map([...new Set(views)].map((v) => [v, films.map((film) => direct(film, v))]));
  return (film, view) => {
    const table = tables.get(view)!;
    const p = Math.min(table.length - 1, Math.max(0, film / step));
    const low = Math.min(table.length - 2, Math.floor(p));
    const u = p - low;
    const [x, y] = [table[low]!, table[low + 1]!];
    const mix = (k: keyof Seen) => x[k] + u * (y[k] - x[k]);
    return { de: mix('de'), lighter: mix('lighter'), a: mix('a'), b: mix('b') };
  };
}

/** Chance of what was said of one rung, by how it is seen. */
function rungChance(read: EyeRead, verdicts: readonly RungVerdict[], n: number, seenAt: SeenAt): number {
  const eye = read.handHeld ? EYE_SCATTER.hand : EYE_SCATTER.stand;
  const cuts = read.cuts ?? USUAL_CUTS;
  const tables = verdicts.map((v) => cellTable(v.verdict, eye.view, cuts));
  const film = Math.hypot(RUNG_SHARE * Math.sqrt(n), RUNG_COUNT);
  let sum = 0;
  for (const [x, filmWeight] of THREE_NODES) {
    const seen = verdicts.map((v) => seenAt(Math.max(0, n + x * film), v.view));
    for (const [z, weight] of NODES) {
      let p = filmWeight * weight;
      for (let i = 0; i < verdicts.length; i++) {
        const s = seen[i]!;
        const shared = z * eye.rung;
        p *= s.lighter * cellAt(tables[i]!, shared - s.de) + (1 - s.lighter) * cellAt(tables[i]!, shared + s.de);
        const { hue } = verdicts[i]!;
        // A hue word counts on its own: which way, not how much.
        const axis = hue && HUE_AXIS[hue];
        if (axis) p *= Math.max(0.03, normalCdf(axis(s) / (0.8 + 0.2 * s.de)));
      }
      sum += p;
    }
  }
  // What is said by a slip may be anything; further places then mostly repeat it.
  return (1 - SLIP) * sum + SLIP * 0.2 * 0.5 ** (verdicts.length - 1);
}

/** What verdicts say of the count that matches. */
export interface EyePosterior {
  /** Grid of counts 0.5..8, and the probability of each. */
  readonly counts: readonly number[];
  readonly chance: readonly number[];
  readonly best: number;
  readonly sd: number;
  /** Central interval that holds nine in ten. */
  readonly interval: readonly [number, number];
  /** Rungs of which something was said that can't all be so at any count: face against flop, or rungs in the wrong order. */
  readonly disagree: readonly { readonly coats: number; readonly views: readonly EyeView[] }[];
  /** They contradict each other: some disagree, or the chance has two humps. */
  readonly contradicts: boolean;
}

const byRung = (verdicts: readonly RungVerdict[]): [number, RungVerdict[]][] => {
  const rungs = new Map<number, RungVerdict[]>();
  for (const v of verdicts) rungs.set(v.coats, [...(rungs.get(v.coats) ?? []), v]);
  return [...rungs].sort((a, b) => a[0] - b[0]);
};

/**
 * Posterior of the best count from verdicts by eye: each is a difference in dE00 between the rung and the colour of the count that
 * matches, read through the ladder. Rungs multiply; looks at one rung share an error, so that a second place to stand says far
 * less than a second rung.
 * @param prior the model's or the card's belief, mean and standard deviation in coats; flat over 0.5..8 when left out.
 */
export function countByEye(
  verdicts: readonly RungVerdict[],
  read: EyeRead,
  prior?: { readonly mean: number; readonly sd: number },
): EyePosterior {
  const counts = COUNTS;
  const rungs = byRung(verdicts);
  const total = read.ladders.reduce((s, l) => s + l.weight, 0);
  const likelihood = counts.map(() => 0);
  for (const { ladder, weight } of read.ladders) {
    counts.forEach((b, i) => {
      const seenAt = seeing(read, ladder, b);
      likelihood[i]! += (weight / total) * rungs.reduce((p, [n, own]) => p * rungChance(read, own, n, seenAt), 1);
    });
  }
  const raw = likelihood.map((p, i) => p * (prior ? Math.exp(-0.5 * ((counts[i]! - prior.mean) / prior.sd) ** 2) : 1));
  const sum = raw.reduce((s, v) => s + v, 0);
  const chance = sum > 0 ? raw.map((v) => v / sum) : counts.map(() => 1 / counts.length);
  const best = counts.reduce((s, n, i) => s + n * chance[i]!, 0);
  const sd = Math.sqrt(counts.reduce((s, n, i) => s + (n - best) ** 2 * chance[i]!, 0));
  const disagree = disagreements(rungs, read, counts);
  return {
    counts,
    chance,
    best,
    sd,
    interval: [quantileOf(counts, chance, 0.05), quantileOf(counts, chance, 0.95)],
    disagree,
    contradicts: disagree.length > 0 || twoHumps(counts, chance) || outOfOrder(verdicts).length > 0,
  };
}

function quantileOf(counts: readonly number[], chance: readonly number[], q: number): number {
  let sum = 0;
  for (let i = 0; i < counts.length; i++) {
    sum += chance[i]!;
    if (sum >= q) return counts[i]!;
  }
  return counts.at(-1)!;
}

/** How much less likely several places together may be, at their best count, than each at its own, before they disagree. */
const DISAGREE_BELOW = 0.03;

/** Rungs whose looks no count explains together. */
function disagreements(
  rungs: readonly (readonly [number, readonly RungVerdict[]])[],
  read: EyeRead,
  counts: readonly number[],
): EyePosterior['disagree'] {
  const { ladder } = read.ladders[0]!;
  const grid = counts.filter((_, i) => i % 4 === 0);
  const targets = grid.map((b) => seeing(read, ladder, b));
  return rungs.flatMap(([coats, own]) => {
    if (own.length < 2) return [];
    const most = (verdicts: readonly RungVerdict[]) =>
      Math.max(...targets.map((t) => rungChance(read, verdicts, coats, t)));
    const apart = own.reduce((p, v) => p * most([v]), 1);
    const off = faceAgainstFlop(own).length > 0 || most(own) < DISAGREE_BELOW * apart;
    return off ? [{ coats, views: own.map((v) => v.view) }] : [];
  });
}

/** How far the film of a place may be from what was sprayed there, before it is looked at: a share, and a part of a count. */
const [PLACE_SHARE, PLACE_COUNT] = [0.35, 0.1] as const;

/** How much what is on a place looks like, by eye: mean and standard deviation in counts of the card. @param sprayed coats on there */
export function filmByEye(
  verdicts: readonly RungVerdict[],
  read: EyeRead,
  best: number,
  sprayed: number,
): { readonly mean: number; readonly sd: number } {
  const grid = COUNTS.filter((_, i) => i % 2 === 0);
  const weights = grid.map(() => 0);
  for (const { ladder, weight } of read.ladders) {
    const views = verdicts.map((v) => v.view);
    const seenAt = tabledSeeing(read, ladder, best, views);
    grid.forEach((n, i) => (weights[i]! += weight * rungChance(read, verdicts, n, seenAt)));
  }
  const usual = PLACE_SHARE * sprayed + PLACE_COUNT;
  grid.forEach((n, i) => (weights[i]! *= Math.exp(-0.5 * ((n - sprayed) / usual) ** 2)));
  const total = weights.reduce((s, v) => s + v, 0);
  const mean = grid.reduce((s, n, i) => s + n * weights[i]!, 0) / total;
  return { mean, sd: Math.sqrt(grid.reduce((s, n, i) => s + (n - mean) ** 2 * weights[i]!, 0) / total) };
}

/** Humps nearer than this are hands that may differ, not verdicts, counts. */
const HUMPS_APART = 1;

/** A dip between two humps a coat apart, much deeper than the lower hump. */
function twoHumps(counts: readonly number[], chance: readonly number[]): boolean {
  const peaks = chance.flatMap((v, i) =>
    v > (chance[i - 1] ?? 0) && v >= (chance[i + 1] ?? 0) && v > 0.004 ? [i] : [],
  );
  return peaks.some((p, k) => {
    const next = peaks.slice(k + 1).find((q) => counts[q]! - counts[p]! >= HUMPS_APART);
    if (next === undefined) return false;
    const dip = Math.min(...chance.slice(p, next + 1));
    return dip < 0.6 * Math.min(chance[p]!, chance[next]!);
  });
}

/** Pairs of rungs seen from one place of which the one with more coats was called lighter: one of them is wrong. */
export function outOfOrder(verdicts: readonly RungVerdict[]): { view: EyeView; fewer: number; more: number }[] {
  return EYE_VIEWS.flatMap((view) => {
    const seen = verdicts.filter((v) => v.view === view).sort((a, b) => a.coats - b.coats);
    const way = seen.map((v) => VERDICTS.indexOf(v.verdict));
    // Where coats make it lighter from this place all rungs go that way; only a turn back is wrong.
    const rises = way.some((v, i) => i > 0 && v > way[i - 1]!);
    if (!rises) return [];
    return seen.flatMap((low, i) =>
      seen
        .slice(i + 1)
        .filter((high) => VERDICTS.indexOf(high.verdict) < VERDICTS.indexOf(low.verdict))
        .map((high) => ({ view, fewer: low.coats, more: high.coats })),
    );
  });
}

/** Rungs that look too light from one side of the light and too dark from the other: no number of coats mends both. */
export function faceAgainstFlop(
  verdicts: readonly RungVerdict[],
): { readonly coats: number; readonly face: Verdict; readonly flop: Verdict }[] {
  const match = VERDICTS.indexOf('match');
  const off = (v: Verdict) => Math.sign(VERDICTS.indexOf(v) - match);
  return [...new Set(verdicts.map((v) => v.coats))]
    .sort((a, b) => a - b)
    .flatMap((coats) => {
      const seen = (view: EyeView) => verdicts.find((v) => v.coats === coats && v.view === view)?.verdict;
      const [face, flop] = [seen('sun face'), seen('sun flop')];
      return face && flop && off(face) * off(flop) < 0 ? [{ coats, face, flop }] : [];
    });
}

/** A ladder of a finish nothing is known of: it gets darker by so much a coat, dE00. */
const UNKNOWN_SLOPE = 2.5;

/** Ladders of a card whose finish no model is there for: steeper and flatter ones alike, so that nothing narrow follows. */
export function unknownLadders(geometries: number): PossibleLadder[] {
  const outputs = 3 * geometries;
  return [0.5, 1, 1.8].map((steep) => ({
    weight: 1,
    ladder: {
      outputs,
      values: Float64Array.from({ length: 161 * outputs }, (_, i) =>
        i % 3 === 0 ? 80 - UNKNOWN_SLOPE * steep * 0.05 * Math.floor(i / outputs) : 0,
      ),
    },
  }));
}
