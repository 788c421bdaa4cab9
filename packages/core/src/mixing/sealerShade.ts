import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { albedoToLab, labToAlbedo } from '../materials/grounds';
import { differenceWeights, residuals } from '../colour/residuals';
import { boundedGaussNewton } from '../numeric/gaussNewton';
import { kubelkaMunkInfinite } from '../optics/kubelkaMunk';
import type { Film } from '../optics/film';

/** A sealer that can be mixed into a shade. */
export interface SealerTone {
  readonly name: string;
  /** Look of the cleared drawdown, lamp at 45 degrees, seen from the normal. */
  readonly lab: Lab;
  /** Scattering of a volume part against white; how strongly it hides by lightening. */
  readonly scatter: number;
}

/** White, black and red sealer; looks are invented, scattering from memory. */
export const SEALER_TONES: readonly SealerTone[] = [
  { name: 'white sealer', lab: [95, -0.5, 1.5], scatter: 1 },
  { name: 'black sealer', lab: [14, 0, -0.5], scatter: 0.12 },
  { name: 'red sealer', lab: [38, 46, 28], scatter: 0.35 },
];

export interface SealerMix {
  readonly parts: readonly { readonly name: string; readonly parts: number }[];
  readonly lab: Lab;
  /** CIEDE2000 to the wanted shade. */
  readonly off: number;
}

interface Prepared {
  readonly k: Float64Array;
  readonly s: number;
}

function prepare(film: Film, tone: SealerTone): Prepared {
  const k = labToAlbedo(film, tone.lab).map((r) => {
    const inside = Math.min(0.98, Math.max(0.004, r));
    return (tone.scatter * (1 - inside) ** 2) / (2 * inside);
  });
  return { k, s: tone.scatter };
}

/** Look of sealers mixed by volume parts, hiding, under clear (two-constant Kubelka-Munk, same surface as the grounds'). */
export function sealerLook(film: Film, tones: readonly SealerTone[], parts: readonly number[]): Lab {
  return lookOf(
    film,
    tones.map((t) => prepare(film, t)),
    parts,
  );
}

function lookOf(film: Film, tones: readonly Prepared[], parts: readonly number[]): Lab {
  const s = tones.reduce((sum, t, i) => sum + t.s * parts[i]!, 0);
  const inside = Float64Array.from({ length: 31 }, (_, w) =>
    kubelkaMunkInfinite(
      tones.reduce((sum, t, i) => sum + t.k[w]! * parts[i]!, 0),
      s,
    ),
  );
  return albedoToLab(film, inside);
}

/** Shares below this are left out: they can't be measured; ours. */
const LEAST_SHARE = 0.002;

/** Powers of ten against the first tone that a search begins at, and between which it stays: tinters act over decades; ours. */
const STARTS = [-3, -2, -1, 0, 1] as const;
const [NONE, MOST] = [-5, 2.5] as const;
const ROUNDS = 25;

/**
 * Parts of the sealers for a wanted shade: nearest in CIEDE2000, by the solver that looks for whole mixes, over powers of ten and
 * from several starts. Parts are written with the largest as a round number (100), to tenths.
 */
export function sealerForShade(film: Film, tones: readonly SealerTone[], wanted: Lab): SealerMix {
  const prepared = tones.map((t) => prepare(film, t));
  const target = [{ lab: wanted }];
  const weights = differenceWeights(target);
  const partsOf = (logs: readonly number[]) => [1, ...logs.map((l) => (l <= NONE ? 0 : 10 ** l))];
  const further = tones.slice(1);
  const starts = further.reduce<readonly number[][]>(
    (all) => all.flatMap((logs) => STARTS.map((l) => [...logs, l])),
    [[]],
  );
  const found = starts.map((start) => {
    const { x } = boundedGaussNewton(
      {
        residuals: (logs) => residuals([lookOf(film, prepared, partsOf(logs))], target, weights),
        lo: further.map(() => NONE),
        hi: further.map(() => MOST),
        step: () => 0.01,
      },
      start,
      ROUNDS,
    );
    return { logs: x, off: de2000(lookOf(film, prepared, partsOf(x)), wanted) };
  });
  const best = found.reduce((a, b) => (b.off < a.off ? b : a));
  const raw = partsOf(best.logs);
  const sum = raw.reduce((a, c) => a + c, 0);
  const largest = Math.max(...raw);
  const rounded = raw.map((v) => (v / sum < LEAST_SHARE ? 0 : Math.round((v / largest) * 1000) / 10));
  const lab = lookOf(film, prepared, rounded);
  return {
    parts: tones.map((t, i) => ({ name: t.name, parts: rounded[i]! })).filter((p) => p.parts > 0),
    lab,
    off: de2000(lab, wanted),
  };
}

/**
 * Tinting strength of one tone from a trial: its scattering and absorption are scaled together until the mix looks as light as
 * it came out. Bisection; strength within a tenth and ten times. @returns the tones with that one scaled.
 */
export function learnTint(
  film: Film,
  tones: readonly SealerTone[],
  index: number,
  parts: readonly number[],
  cameOutL: number,
): readonly SealerTone[] {
  const scaled = (f: number) => tones.map((t, i) => (i === index ? { ...t, scatter: t.scatter * f } : t));
  const lightness = (f: number) => sealerLook(film, scaled(f), parts)[0];
  const darkens = lightness(10) < lightness(0.1);
  let [lo, hi] = [0.1, 10];
  for (let i = 0; i < 40; i++) {
    const mid = Math.sqrt(lo * hi);
    if (lightness(mid) > cameOutL === darkens) lo = mid;
    else hi = mid;
  }
  return scaled(Math.sqrt(lo * hi));
}
