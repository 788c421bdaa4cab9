import { Matrix, solve } from 'ml-matrix';
import { reflectanceToLab, type Lab } from '../colour/lab';
import { WAVELENGTHS_NM } from '../colour/spectrum';
import { D65_10, type Viewing } from '../colour/tristimulus';
import type { FastModel } from '../optics/stack';
import { ladderLabs, type EffectCoats } from '../matching/ladder';
import { type PreparedGround } from '../optics/preparedGround';
import type { Hand } from '../finishes/styles';
import { levenbergMarquardt, type LeastSquaresResult } from '../numeric/leastSquares';

/** Readings of one rung, in the order of the model's geometries; null where an angle was not read. 0 coats: the ground alone. */
export interface RungReading {
  readonly coats: number;
  readonly labs: readonly (Lab | null)[];
}

/**
 * What a card can teach: film per coat, flake against dye, flake spread and edge scatter (as logarithms), the dye's shift in
 * units of 10 nm, and how far the ground is from its stated look, in units of 10.
 */
export type HandParameter = 'film' | 'flake' | 'spread' | 'edge' | 'hueNm' | 'groundL' | 'groundA' | 'groundB';
export const HAND_PARAMETERS: readonly HandParameter[] = [
  'film',
  'flake',
  'spread',
  'edge',
  'hueNm',
  'groundL',
  'groundA',
  'groundB',
];

/** What is believed before a card is read: a mean and a standard deviation of each member, in the fit's own units. */
export interface HandPrior {
  readonly mean: Readonly<Partial<Record<HandParameter, number>>>;
  readonly sd: Readonly<Record<HandParameter, number>>;
}

/** Before any card is read; ours. */
export const DEFAULT_PRIOR: HandPrior = {
  mean: {},
  sd: { film: 0.35, flake: 0.35, spread: 0.25, edge: 0.5, hueNm: 0.8, groundL: 0.2, groundA: 0.2, groundB: 0.2 },
};

/** A rung whose readings stay further than this many standard deviations from the fit is flagged. */
export const MISREAD_LIMIT = 4;

/** What is left of a rung after the fit, shrunken, per geometry and Lab axis. */
export interface Residual {
  readonly coats: number;
  readonly labs: readonly (Lab | null)[];
}

export interface Calibration {
  readonly hand: Hand;
  /** How far the ground is from its stated look, Lab. */
  readonly groundOffset: Lab;
  /** Standard deviations in the fit's own units: about fractions for the first four; 0 for a member that was not free. */
  readonly sd: Readonly<Record<HandParameter, number>>;
  readonly free: readonly HandParameter[];
  /** Values of the free members in the fit's own units, with their covariance. */
  readonly parameters: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  /** Coat counts of rungs that do not fit the others; left out of the fit. */
  readonly misread: readonly number[];
  readonly residuals: readonly Residual[];
  /** Rms of the kept residuals in units of the reading noise; about 1 for a good card. */
  readonly fit: number;
  readonly status: LeastSquaresResult['status'];
}

/** Repeatability of a reading in Lab units: 0.3 + 0.01 L* (ours). */
export function readingNoise(lab: Lab): number {
  return 0.3 + 0.01 * Math.max(0, lab[0]);
}

/** Members of the fit as what they mean. */
export function valuesOf(
  free: readonly HandParameter[],
  parameters: readonly number[],
): { hand: Hand; groundOffset: Lab } {
  const at = (name: HandParameter) => {
    const p = free.indexOf(name);
    return p < 0 ? 0 : parameters[p]!;
  };
  const ratio = (name: HandParameter) => Math.exp(Math.min(2, Math.max(-2, at(name))));
  return {
    hand: {
      film: ratio('film'),
      flake: ratio('flake'),
      spread: ratio('spread'),
      edge: ratio('edge'),
      hueNm: 10 * Math.min(4, Math.max(-4, at('hueNm'))),
    },
    groundOffset: [10 * at('groundL'), 10 * at('groundA'), 10 * at('groundB')],
  };
}

/** Which members a card of this recipe over this ground can say anything about. */
export function freeMembers(ground: PreparedGround, recipe: EffectCoats): HandParameter[] {
  const hasFlakes = recipe.coat.tau > 0;
  const hasDye = recipe.coat.a.some((v) => v > 0.02);
  return HAND_PARAMETERS.filter((name) => {
    if (name === 'film') return true;
    if (name === 'flake') return hasFlakes && hasDye;
    if (name === 'spread' || name === 'edge') return hasFlakes;
    if (name === 'hueNm') return hasDye;
    return ground.coats.length === 0;
  });
}

/** The shapes a solid ground's spectrum can be bent by: lighter, toward long waves, toward the middle. */
const SHAPES = [
  () => 1,
  (nm: number) => (nm - 550) / 150,
  (nm: number) => 1 - 2 * Math.min(1, Math.abs(nm - 550) / 120),
].map((f) => Float64Array.from(WAVELENGTHS_NM, f));

/** A ground with its look moved by a small Lab offset: its spectrum bent smoothly, kept inside 0..0.995. */
export function shiftGround(ground: PreparedGround): (offset: Lab) => PreparedGround {
  const base = reflectanceToLab(ground.albedo);
  const h = 0.02;
  const columns = SHAPES.map((shape) => {
    const moved = reflectanceToLab(ground.albedo.map((v, i) => v * (1 + h * shape[i]!)));
    return moved.map((v, k) => (v - base[k]!) / h);
  });
  const matrix = new Matrix([0, 1, 2].map((k) => columns.map((c) => c[k]!)));
  return (offset) => {
    if (offset.every((v) => v === 0)) return ground;
    const bend = solve(matrix, Matrix.columnVector([...offset])).to1DArray();
    const albedo = ground.albedo.map((v, i) =>
      Math.min(0.995, Math.max(0, v * (1 + SHAPES.reduce((s, shape, k) => s + bend[k]! * shape[i]!, 0)))),
    );
    return { ...ground, albedo };
  };
}

/**
 * Fits the painter's hand to a let-down card: maximum a posteriori by Levenberg-Marquardt over whatever the card can teach.
 * A rung that stays beyond four standard deviations is flagged and left out, one at a time, while two others remain; what is
 * left of the kept ones is carried on, shrunken.
 * @param prior what earlier cards with this gun and style say, or {@link DEFAULT_PRIOR}.
 */
export function calibrateHand(
  model: FastModel,
  ground: PreparedGround,
  recipe: EffectCoats,
  readings: readonly RungReading[],
  viewing: Viewing = D65_10,
  prior: HandPrior = DEFAULT_PRIOR,
): Calibration {
  const free = freeMembers(ground, recipe);
  const means = free.map((name) => prior.mean[name] ?? 0);
  const moveGround = shiftGround(ground);
  const ladderAt = (parameters: readonly number[], counts: readonly number[]): Lab[][] => {
    const { hand, groundOffset } = valuesOf(free, parameters);
    return ladderLabs(model, moveGround(groundOffset), { ...recipe, hand }, counts, viewing);
  };
  const residualsOf =
    (rungs: readonly RungReading[]) =>
    (parameters: readonly number[]): number[] => {
      const labs = ladderAt(
        parameters,
        rungs.map((r) => r.coats),
      );
      const out = parameters.map((v, p) => (v - means[p]!) / prior.sd[free[p]!]);
      rungs.forEach((rung, k) =>
        rung.labs.forEach((lab, g) => {
          if (lab) for (const c of [0, 1, 2] as const) out.push((labs[k]![g]![c] - lab[c]) / readingNoise(lab));
        }),
      );
      return out;
    };
  let kept = readings.filter((r) => r.labs.some(Boolean));
  const misread: number[] = [];
  let result = levenbergMarquardt(residualsOf(kept), means);
  for (;;) {
    const size = largest(residualsOf(kept)(result.parameters).slice(free.length));
    if (size <= MISREAD_LIMIT || kept.length <= 2) break;
    // Leave out the rung whose removal lets the others agree best, not merely the one pulled furthest.
    const candidates = kept.map((rung) => {
      const rest = kept.filter((r) => r !== rung);
      return { rung, rest, fit: levenbergMarquardt(residualsOf(rest), result.parameters, { maxIterations: 12 }) };
    });
    const best = candidates.reduce((a, b) => (b.fit.residual < a.fit.residual ? b : a));
    misread.push(best.rung.coats);
    kept = best.rest;
    result = best.fit;
  }
  const data = residualsOf(kept)(result.parameters).slice(free.length);
  const sd = Object.fromEntries(HAND_PARAMETERS.map((name) => [name, 0])) as Record<HandParameter, number>;
  free.forEach((name, p) => (sd[name] = Math.sqrt(result.covariance[p]![p]!)));
  const fitted = ladderAt(
    result.parameters,
    kept.map((r) => r.coats),
  );
  return {
    ...valuesOf(free, result.parameters),
    sd,
    free,
    parameters: result.parameters,
    covariance: result.covariance,
    misread: misread.sort((a, b) => a - b),
    residuals: cardResiduals(kept, fitted),
    fit: Math.sqrt(data.reduce((s, v) => s + v * v, 0) / Math.max(1, data.length)),
    status: result.status,
  };
}

const largest = (values: readonly number[]): number => values.reduce((m, v) => Math.max(m, Math.abs(v)), 0);

/** What the fit leaves of each rung, shrunken: what could be noise is taken out, so that only the rest is carried on. */
function cardResiduals(rungs: readonly RungReading[], fitted: readonly (readonly Lab[])[]): Residual[] {
  return rungs
    .map((rung, k) => ({
      coats: rung.coats,
      labs: rung.labs.map((lab, g): Lab | null => {
        if (!lab) return null;
        const noise = readingNoise(lab);
        return [0, 1, 2].map((c) => {
          const left = lab[c]! - fitted[k]![g]![c]!;
          return (left * left * left) / (left * left + 4 * noise * noise);
        }) as unknown as Lab;
      }),
    }))
    .sort((a, b) => a.coats - b.coats);
}

/** A ladder's colours with the residuals of its card laid on: linear between rungs, none at the bare ground, held above. */
export function withResiduals(
  counts: readonly number[],
  labs: readonly (readonly Lab[])[],
  residuals: readonly Residual[],
): Lab[][] {
  return counts.map((n, k) =>
    labs[k]!.map((lab, g): Lab => {
      const points = residuals.filter((l) => l.labs[g]);
      const first = points[0];
      if (!first) return lab;
      const above = points.findIndex((p) => p.coats >= n);
      const add = (c: 0 | 1 | 2): number => {
        if (above < 0) return points.at(-1)!.labs[g]![c];
        if (above === 0) return first.coats > 0 ? (first.labs[g]![c] * n) / first.coats : first.labs[g]![c];
        const [low, high] = [points[above - 1]!, points[above]!];
        const u = (n - low.coats) / (high.coats - low.coats);
        return low.labs[g]![c] * (1 - u) + high.labs[g]![c] * u;
      };
      return [lab[0] + add(0), lab[1] + add(1), lab[2] + add(2)];
    }),
  );
}

/** How much painters differ from themselves between cards, in the fit's units; ours. A prior is never surer than this. */
const BETWEEN_CARDS: Readonly<Record<HandParameter, number>> = {
  film: 0.08,
  flake: 0.1,
  spread: 0.08,
  edge: 0.2,
  hueNm: 0.3,
  groundL: 0.2,
  groundA: 0.2,
  groundB: 0.2,
};

/** What a card said of a hand, as it is kept for the next one. */
export interface KnownHand {
  readonly mean: Readonly<Partial<Record<HandParameter, number>>>;
  readonly sd: Readonly<Partial<Record<HandParameter, number>>>;
}

/**
 * A prior from earlier cards with the same gun and style: precision-weighted mean; its doubt is what the cards leave, and what
 * hands differ by from card to card. Film, spread and edge go with the painter; the dye's hue and the ground with the pot, so
 * they start afresh.
 */
export function priorFromCards(cards: readonly KnownHand[]): HandPrior {
  const mean: Partial<Record<HandParameter, number>> = {};
  const sd = { ...DEFAULT_PRIOR.sd };
  for (const name of ['film', 'flake', 'spread', 'edge'] as const) {
    const known = cards.filter((c) => c.mean[name] !== undefined && (c.sd[name] ?? 0) > 0);
    if (!known.length) continue;
    const weights = known.map((c) => 1 / (c.sd[name]! ** 2 + BETWEEN_CARDS[name] ** 2));
    const total = weights.reduce((s, w) => s + w, 0) + 1 / DEFAULT_PRIOR.sd[name] ** 2;
    mean[name] = known.reduce((s, c, i) => s + c.mean[name]! * weights[i]!, 0) / total;
    sd[name] = Math.min(DEFAULT_PRIOR.sd[name], Math.hypot(1 / Math.sqrt(total), BETWEEN_CARDS[name]));
  }
  return { mean, sd };
}

export function knownHandOf({ free, parameters, sd }: Calibration): KnownHand {
  return {
    mean: Object.fromEntries(free.map((name, p) => [name, parameters[p]!])),
    sd: Object.fromEntries(free.map((name) => [name, sd[name]])),
  };
}
