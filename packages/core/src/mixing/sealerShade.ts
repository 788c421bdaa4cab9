import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { albedoToLab, labToAlbedo } from '../materials/grounds';
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

/**
 * Parts of the sealers for a wanted shade: nearest in CIEDE2000, searched over the shares on an ever finer grid.
 * Parts are written with the largest as a round number (100), to tenths.
 */
export function sealerForShade(film: Film, tones: readonly SealerTone[], wanted: Lab): SealerMix {
  const prepared = tones.map((t) => prepare(film, t));
  // Shares by their logarithm against the first: tinters act over decades.
  let centre: number[] = tones.map((_, i) => (i ? -2 : 0));
  let best = { off: Infinity, logs: centre };
  const off = (logs: readonly number[]) => {
    const parts = logs.map((l, i) => (i && l <= -5 ? 0 : 10 ** l));
    return de2000(lookOf(film, prepared, parts), wanted);
  };
  for (let step = 1; step > 0.004; step /= 2) {
    let moved = true;
    while (moved) {
      moved = false;
      for (let i = 1; i < tones.length; i++) {
        for (let j = i; j < tones.length; j++) {
          for (const [a, c] of [
            [-1, 0],
            [1, 0],
            [0, -1],
            [0, 1],
            [-1, -1],
            [1, 1],
            [-1, 1],
            [1, -1],
          ] as const) {
            const logs = centre.map((l, k) =>
              Math.min(2.5, Math.max(-5, l + (k === i ? a * step : 0) + (k === j ? c * step : 0))),
            );
            const d = off(logs);
            if (d < best.off - 1e-9) {
              best = { off: d, logs };
              moved = true;
            }
          }
        }
      }
      centre = best.logs;
    }
  }
  const raw = best.logs.map((l) => 10 ** l);
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
