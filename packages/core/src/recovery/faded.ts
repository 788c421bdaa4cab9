import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { fadeFactor } from '../spraying/blend';

/** A place that is lighter than what lies beside it, and how faded coats on it are laid. */
export interface FadedAsk {
  /** Film beside it and on it, and what is laid in all at its middle; counts of the ladder. */
  readonly besideFilm: number;
  readonly film: number;
  readonly laid: number;
  /** Light coats it is laid in. */
  readonly coats: number;
  /** How wide the place is, cm. */
  readonly acrossCm: number;
  /** It lies at an edge: it has one side, not all round. */
  readonly atEdge: boolean;
  /** Colours of the ladder at a film, one list of angles. */
  readonly look: (film: number) => readonly Lab[];
}

/** Reaches of faded coats, and what they come to from the middle of the place outward. */
export interface FadedPlan {
  /** Whole for so many cm across, the widest coat fading over so many beyond. */
  readonly acrossCm: number;
  readonly fadeCm: number;
  /** Each coat goes so much further than the one below it, cm. */
  readonly stepCm: number;
  /** m2 that one coat is laid on. */
  readonly m2: number;
  readonly places: readonly number[];
  /** dE00 to what lies beside it, the worst angle, by place: as it is, and after. */
  readonly before: readonly number[];
  readonly after: readonly number[];
  /** Film by place, counts: as it is, and after. */
  readonly filmBefore: readonly number[];
  readonly filmAfter: readonly number[];
  /** Largest difference that is left on the place, and what is put on beside it, dE00. */
  readonly worst: number;
  readonly beside: number;
}

/** A light place has a soft border: it fades out over half its width, at least this many cm; ours. */
const LEAST_SOFT = 4;
/** Fades, steps and whole parts that are tried: cm, cm, shares of the place's half width. */
const FADES = [4, 6, 8, 10, 12, 16, 20, 25, 30, 40] as const;
const STEPS = [0, 2, 4] as const;
const WHOLE = [0.5, 0.75, 1] as const;
/** A narrower fade is worth this much, dE00 a cm. */
const COST_A_CM = 0.004;
const PLACE_CM = 1;

/** The fade that leaves least to be seen, on the place and beside it. */
export function planFaded(q: FadedAsk): FadedPlan {
  const half = q.acrossCm / 2;
  const soft = Math.max(LEAST_SOFT, half);
  const length = half + Math.max(soft, FADES.at(-1)! + STEPS.at(-1)! * q.coats) + 4;
  const places = Array.from({ length: Math.ceil(length / PLACE_CM) + 1 }, (_, i) => i * PLACE_CM);
  const missing = q.besideFilm - q.film;
  const filmBefore = places.map((x) => q.besideFilm - missing * fadeFactor(x, half + soft, soft));
  const beside = q.look(q.besideFilm);
  const known = new Map<number, number>();
  // To the next hundredth of a coat: finer is not seen.
  const off = (film: number): number => {
    const at = Math.round(film * 100);
    const have = known.get(at);
    if (have !== undefined) return have;
    const labs = q.look(at / 100);
    const de = beside.reduce((m, lab, g) => Math.max(m, de2000(lab, labs[g]!)), 0);
    known.set(at, de);
    return de;
  };
  const before = filmBefore.map(off);
  let best: FadedPlan | null = null;
  let least = Infinity;
  for (const share of WHOLE)
    for (const fadeCm of FADES)
      for (const stepCm of STEPS) {
        const whole = share * half;
        const add = (x: number): number => {
          let sum = 0;
          for (let i = 0; i < q.coats; i++)
            sum += (q.laid / q.coats) * fadeFactor(x, whole + fadeCm + i * stepCm, fadeCm);
          return sum;
        };
        const filmAfter = places.map((x, i) => filmBefore[i]! + add(x));
        const after = filmAfter.map(off);
        const worst = Math.max(...after);
        const value = worst + COST_A_CM * (fadeCm + stepCm * q.coats) + 0.01 * (1 - share);
        if (value >= least) continue;
        least = value;
        const radius = whole + fadeCm / 2 + ((q.coats - 1) * stepCm) / 2;
        best = {
          acrossCm: Math.round(2 * whole),
          fadeCm,
          stepCm,
          m2: Number(((Math.PI * radius ** 2 * (q.atEdge ? 0.5 : 1)) / 1e4).toFixed(4)),
          places,
          before,
          after,
          filmBefore,
          filmAfter,
          worst,
          beside: Math.max(0, ...places.map((x, i) => (x > half + soft ? after[i]! - before[i]! : 0))),
        };
      }
  return best!;
}
