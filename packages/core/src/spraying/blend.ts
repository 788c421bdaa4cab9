import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';

/** A layer of a blend: how far it goes from the middle of the repair and over how much of that it fades, cm. */
export interface BlendLayer {
  readonly id: string;
  readonly name: string;
  readonly kind: 'ground' | 'effect' | 'clear';
  /** Nominal full coats of film where it is whole. */
  readonly film: number;
  readonly reachCm: number;
  readonly fadeCm: number;
}

/** Share of a layer's film at a place: whole up to reach - fade, then a smooth fall to nothing at the reach. */
export function fadeFactor(at: number, reachCm: number, fadeCm: number): number {
  if (at >= reachCm) return 0;
  if (fadeCm <= 0 || at <= reachCm - fadeCm) return 1;
  const t = (reachCm - at) / fadeCm;
  return t * t * (3 - 2 * t);
}

/** What the blend is at a place: ground and effect film in nominal full coats. */
export interface BlendPlace {
  readonly at: number;
  readonly ground: number;
  readonly effect: number;
}

export function blendPlace(layers: readonly BlendLayer[], at: number): BlendPlace {
  let ground = 0;
  let effect = 0;
  for (const l of layers) {
    const film = l.film * fadeFactor(at, l.reachCm, l.fadeCm);
    if (l.kind === 'ground') ground += film;
    else if (l.kind === 'effect') effect += film;
  }
  return { at, ground, effect };
}

/** A layer that goes further than one above it: its edge shows as a halo. Every such pair is reported, from below. */
export function halosOf(
  layers: readonly BlendLayer[],
): { readonly lower: BlendLayer; readonly upper: BlendLayer; readonly byCm: number }[] {
  const found: { lower: BlendLayer; upper: BlendLayer; byCm: number }[] = [];
  layers.forEach((lower, i) => {
    for (const upper of layers.slice(i + 1))
      // Coats of one ground are one colour: the edge of the lower one shows nothing.
      if (
        lower.reachCm > upper.reachCm &&
        !(lower.kind === 'ground' && upper.kind === 'ground' && lower.name === upper.name)
      )
        found.push({ lower, upper, byCm: lower.reachCm - upper.reachCm });
  });
  return found;
}

/** Look per angle at a place of a blend. */
export type BlendLook = (place: BlendPlace) => readonly Lab[];

export interface BlendProfile {
  readonly places: readonly number[];
  /** CIEDE2000 to the finish that is there, [angle][place]. */
  readonly differences: readonly (readonly number[])[];
  /** Look per place, [place][angle]. */
  readonly looks: readonly (readonly Lab[])[];
  /** Steepest change of the difference over 10 cm outside the repair, over all angles. */
  readonly steepest: number;
  readonly steepestAt: number;
}

/** Slope of a blend that is not seen, CIEDE2000 over 10 cm; ours. */
export const SLOPE_UNSEEN = 1;

/**
 * Difference to the existing finish along the panel, from the middle of the repair outward.
 * @param lengthCm how far it is followed. @param existing look per angle. @param stepCm distance of places.
 */
export function blendProfile(
  layers: readonly BlendLayer[],
  look: BlendLook,
  existing: readonly Lab[],
  lengthCm: number,
  stepCm = 2,
): BlendProfile {
  const places: number[] = [];
  for (let at = 0; at <= lengthCm + 1e-9; at += stepCm) places.push(at);
  const looks = places.map((at) => look(blendPlace(layers, at)));
  const differences = existing.map((lab, g) => looks.map((l) => de2000(lab, l[g]!)));
  const over = Math.max(1, Math.round(10 / stepCm));
  let steepest = 0;
  let steepestAt = 0;
  differences.forEach((d) => {
    for (let i = 0; i + over < d.length; i++) {
      const slope = (Math.abs(d[i + over]! - d[i]!) / (over * stepCm)) * 10;
      if (slope > steepest) [steepest, steepestAt] = [slope, places[i]! + (over * stepCm) / 2];
    }
  });
  return { places, differences, looks, steepest, steepestAt };
}

/** Shortest fades and steps that are tried, cm. */
const FADES = [8, 12, 16, 20, 30, 40, 50, 65, 80, 100, 130, 160, 200];
const STEPS = [5, 8, 10, 12, 15, 20, 25];

/** Layers whose reaches grow outward by a step each: each begins to fade where the one below ends its whole part. */
export function steppedLayers(
  layers: readonly BlendLayer[],
  repairCm: number,
  fadeCm: number,
  stepCm: number,
): BlendLayer[] {
  let reach = repairCm;
  return layers.map((l, i) => {
    reach = i === 0 ? repairCm + fadeCm : reach + stepCm;
    return { ...l, reachCm: reach, fadeCm: l.kind === 'clear' ? Math.min(fadeCm, 10) : fadeCm };
  });
}

/** Reaches that are advised. */
export interface BlendSuggestion {
  readonly layers: readonly BlendLayer[];
  readonly steepest: number;
  readonly needsCm: number;
  /** Under the limit; otherwise the softest there is in this length, and edge to edge is the better way. */
  readonly unseen: boolean;
}

/**
 * The least length in which the blend is not seen: fades and steps from short to long, until the steepest change stays under
 * the limit; when none does, the softest of them. @returns null when not even the shortest fits into `lengthCm`.
 */
export function suggestBlend(
  layers: readonly BlendLayer[],
  repairCm: number,
  lengthCm: number,
  look: BlendLook,
  existing: readonly Lab[],
  limit = SLOPE_UNSEEN,
): BlendSuggestion | null {
  const tried = FADES.flatMap((fade) => STEPS.map((step) => steppedLayers(layers, repairCm, fade, step)))
    .map((l) => ({ layers: l, needsCm: Math.max(...l.map((x) => x.reachCm)) }))
    .filter((t) => t.needsCm <= lengthCm)
    .sort((a, b) => a.needsCm - b.needsCm);
  let softest: BlendSuggestion | null = null;
  for (const t of tried) {
    const { steepest } = blendProfile(t.layers, look, existing, lengthCm);
    if (steepest <= limit) return { ...t, steepest, unseen: true };
    if (!softest || steepest < softest.steepest) softest = { ...t, steepest, unseen: false };
  }
  return softest;
}
