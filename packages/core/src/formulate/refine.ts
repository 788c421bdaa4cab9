import { de2000 } from '../colour/difference';
import { labOf, type Lab } from '../colour/lab';
import { FEW_WAVELENGTHS, fewWeights } from '../colour/fewWavelengths';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { D65_10 } from '../colour/tristimulus';
import { labOfFew } from './filmTable';
import { factorsToLabs } from '../matching/ladder';
import type { TargetAngle } from '../matching/target';
import { boundedGaussNewton } from '../numeric/gaussNewton';
import { createFastModel, evaluateReference } from '../optics/stack';
import { readingWeights, residuals } from '../colour/residuals';
import type { Candidate } from './screen';
import { filmMaker, MOST_COVER, MOST_DEPTH, type FormulateInput } from './shelf';

/** Rounds against the reference tier at most; nearer than this at every angle is as near as anyone sees. */
const TRUE_ROUNDS = 3;
export const NEAR_ENOUGH = 0.25;
/** A mix nearer than this over all angles, CIEDE2000, is as near as a steady reading repeats; ours. */
export const REPEATS = 0.55;

/** A candidate that is being brought nearer: its amounts over the whole film, pigments first. */
export interface Refined {
  readonly from: Candidate;
  readonly amounts: readonly number[];
  readonly coats: number;
  readonly labs: readonly Lab[];
  /** Weighted rms, about CIEDE2000. */
  readonly off: number;
}

/** Works candidates out with the full model, and brings them nearer by bounded least squares. */
export function createRefiner(input: FormulateInput) {
  const { model, shelf, target: own, style } = input;
  const maker = filmMaker(input);
  const weights = readingWeights(own);
  const quick = createFastModel(model.optics, FEW_WAVELENGTHS);
  const few = fewWeights(D65_10);
  const seen = new Float64Array(few.at.length);

  const filmOf = ({ pigments, dyes }: Candidate, amounts: readonly number[], coats: number) => {
    const dye = new Float64Array(31);
    dyes.forEach(([place], j) => {
      const { depth } = shelf.dyes[place]!;
      const d = amounts[pigments.length + j]!;
      for (let i = 0; i < 31; i++) dye[i]! += d * depth[i]!;
    });
    return maker(
      pigments.map(([place], i) => [place, amounts[i]!] as const),
      dye,
      coats,
    );
  };
  const look = (from: Candidate, amounts: readonly number[], coats: number): Lab[] =>
    factorsToLabs(model.evaluate(from.ground, [...from.ground.coats, filmOf(from, amounts, coats)]), D65_10);
  /** At a few wavelengths only: what a search goes by. */
  const glance = (from: Candidate, amounts: readonly number[], coats: number): Lab[] => {
    const factors = quick.evaluate(from.ground, [...from.ground.coats, filmOf(from, amounts, coats)]);
    return own.map((_, g) => {
      few.at.forEach((i, c) => (seen[c] = factors[g * WAVELENGTH_COUNT + i]!));
      return labOfFew(seen, few);
    });
  };
  /** By the reference tier: slower, and what the fast one is measured by. */
  const truly = (from: Candidate, amounts: readonly number[], coats: number): Lab[] =>
    factorsToLabs(
      evaluateReference(model.optics, from.ground, [...from.ground.coats, filmOf(from, amounts, coats)]),
      D65_10,
    );
  const rms = (labs: readonly Lab[], target: readonly TargetAngle[]): number =>
    Math.sqrt(residuals(labs, target, weights).reduce((s, v) => s + v * v, 0) / own.length);

  const begin = (from: Candidate, coats: number): Refined => {
    const most = mostOf(from, coats);
    const amounts = [...from.pigments, ...from.dyes].map(([, v], i) => Math.min(most[i]!, v));
    const labs = glance(from, amounts, coats);
    return { from, amounts, coats, labs, off: rms(labs, own) };
  };
  const mostOf = (from: Candidate, coats: number): number[] => {
    const film = coats * style.film;
    return [...from.pigments.map(() => -Math.log(1 - MOST_COVER) * film), ...from.dyes.map(() => MOST_DEPTH * film)];
  };

  /** Some rounds of Gauss-Newton within the bounds. @param target in the place of the own one */
  const nearer = (
    { from, amounts, coats }: Refined,
    rounds: number,
    target: readonly TargetAngle[] = own,
    by: readonly (readonly number[])[] = weights,
  ): Refined => {
    const answer = boundedGaussNewton(
      {
        residuals: (x) => residuals(glance(from, x, coats), target, by),
        lo: amounts.map(() => 0),
        hi: mostOf(from, coats),
      },
      amounts,
      rounds,
    );
    const off = Math.sqrt(answer.squares / own.length);
    return { from, amounts: answer.x, coats, labs: glance(from, answer.x, coats), off };
  };

  /**
   * The last of it against the reference tier: what the fast one is off by is taken out. Where a mix comes as near as readings
   * repeat, its worst angle is brought down, that angle counting for more each time. Where none does, the reading has its scatter,
   * and the worst angle is where most of that is: then it is the sum over the angles.
   */
  const trueUp = (at: Refined): Refined => {
    const isNear = at.off < REPEATS;
    const offOf = (labs: readonly Lab[]) => (isNear ? scored(labs).maxDe : rms(labs, own));
    let best = { ...at, labs: truly(at.from, at.amounts, at.coats) };
    let now = best;
    let by = weights;
    for (let round = 0; round < TRUE_ROUNDS && scored(best.labs).maxDe > NEAR_ENOUGH; round++) {
      const { labs } = now;
      const fast = glance(now.from, now.amounts, now.coats);
      const moved = own.map((t, g) => ({ ...t, lab: labOf(t.lab.map((v, c) => v - (labs[g]![c]! - fast[g]![c]!))) }));
      const next = nearer({ ...now, labs: fast }, 2, moved, by);
      now = { ...next, labs: truly(next.from, next.amounts, next.coats) };
      if (offOf(now.labs) < offOf(best.labs)) best = now;
      if (!isNear) continue;
      const { differences } = scored(now.labs);
      const mean = differences.reduce((s, v) => s + v, 0) / differences.length;
      by = by.map((axes, g) =>
        axes.map((v) => v * Math.min(1.6, Math.max(0.7, Math.sqrt(differences[g]! / Math.max(0.05, mean))))),
      );
    }
    return { ...best, off: rms(best.labs, own) };
  };

  const scored = (labs: readonly Lab[]) => {
    const off = own.map((t, g) => de2000(t.lab, labs[g]!));
    return {
      differences: off,
      rmsDe: Math.sqrt(off.reduce((s, v) => s + v * v, 0) / off.length),
      maxDe: Math.max(...off),
      toleranceRatio: Math.max(...off.map((v, g) => v / own[g]!.tolerance)),
    };
  };
  return { begin, nearer, trueUp, look, truly, scored };
}

export type Refiner = ReturnType<typeof createRefiner>;
