import { defaultTolerance } from '../finishes/tolerances';
import type { Geometry } from '../optics/geometry';
import { intervals, type CardSaid } from './advise';
import { coloursOf, seekTarget } from './bestCount';
import { USUAL_HAND } from './cardFilm';
import type { EyePosterior } from './eye';
import type { PossibleLadder } from './eyeSight';
import { labsAt, plainLadder, toLabs, type Ladder } from './fittedLadder';
import type { LadderTable } from './ladderTable';
import { THREE_NODES } from '../numeric/normal';
import { noiseOf } from './readings';
import { countWindow } from './window';

/** Ladders a hand that was not read may lay: nominal, and steeper and flatter by what hands differ by. */
export function ladderOfAnyHand(
  table: LadderTable,
  film: { readonly mean: number; readonly sd: number } = USUAL_HAND,
): PossibleLadder[] {
  const at = (z: number) => plainLadder(table, Math.exp(film.mean + film.sd * z));
  return THREE_NODES.map(([z, weight]) => ({ ladder: at(z), weight }));
}

/** Deviations of a count from its posterior on a grid, as equally likely values, ascending. */
function deviationsOf({ counts, chance, best }: EyePosterior, samples = 160): number[] {
  const out: number[] = [];
  let sum = 0;
  let i = 0;
  for (let k = 0; k < samples; k++) {
    const q = (k + 0.5) / samples;
    while (i < counts.length - 1 && sum + chance[i]! < q) sum += chance[i++]!;
    out.push(counts[i]! - best);
  }
  return out;
}

/** A card that was read and looked at: its count is what readings and eyes say together. */
export function withEye(card: CardSaid, eye: EyePosterior, seed = 1): CardSaid {
  const deviations = deviationsOf(eye);
  const moved = eye.best - card.best;
  const [lo, hi] = card.window.counts;
  return {
    ...card,
    best: eye.best,
    deviations,
    ...intervals(eye.best, deviations, seed),
    window: { ...card.window, counts: [Math.max(0, lo + moved), hi + moved] },
  };
}

/**
 * A card without any readings: its count is the eye's, what it has to match is its own colour there.
 * @param ladder what the verdicts are read through. @param aspecular of its outputs, lamp at 45 degrees
 */
export function cardByEye(eye: EyePosterior, ladder: Ladder, geometries: readonly Geometry[], seed = 1): CardSaid {
  const labs = toLabs(labsAt(ladder, eye.best));
  const sought = seekTarget({
    angles: geometries.map((g, k) => ({ ...g, lab: labs[k]!, tolerance: defaultTolerance(g.aspecular) })),
    spots: 1,
    sameInstrument: true,
    noise: noiseOf(null, []),
  });
  const deviations = deviationsOf(eye);
  return {
    fit: null,
    ladder,
    nominal: ladder,
    nominalBest: eye.best,
    sought,
    best: eye.best,
    deviations,
    ...intervals(eye.best, deviations, seed),
    nextRung: null,
    // An eye takes out no noise: it is all in how unsure the count is.
    window: countWindow(
      coloursOf(ladder),
      eye.best,
      sought,
      labs.map(() => 0),
    ),
  };
}
