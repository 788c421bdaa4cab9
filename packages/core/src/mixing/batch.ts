import { CoreError } from '../errors';
import { mixByParts, type MixedPart, type MixPart } from './mix';

/** Simple bodies an area can be had from; metres. */
export type BodyShape =
  | { readonly kind: 'panel'; readonly width: number; readonly height: number }
  | { readonly kind: 'cylinder'; readonly diameter: number; readonly height: number; readonly ends: 0 | 1 | 2 }
  | { readonly kind: 'dome'; readonly diameter: number; readonly height: number }
  | { readonly kind: 'tub'; readonly top: number; readonly bottom: number; readonly height: number }
  | { readonly kind: 'tube'; readonly diameter: number; readonly length: number };

/**
 * Outer area, m2. A dome is a spherical cap (pi (r^2 + h^2)), a tub an open truncated cone with its floor, a tube frame the
 * side of all its tubes laid end to end. @throws CoreError `badQuantity` for a dimension that is not above zero.
 */
export function bodyArea(shape: BodyShape): number {
  for (const [name, value] of Object.entries(shape)) {
    if (name === 'kind' || name === 'ends') continue;
    if (!(typeof value === 'number' && value > 0 && Number.isFinite(value)))
      throw new CoreError('badQuantity', 'Every measure of the piece must be above zero.');
  }
  switch (shape.kind) {
    case 'panel':
      return shape.width * shape.height;
    case 'cylinder':
      return Math.PI * shape.diameter * shape.height + shape.ends * (Math.PI / 4) * shape.diameter ** 2;
    case 'dome':
      return Math.PI * ((shape.diameter / 2) ** 2 + shape.height ** 2);
    case 'tub': {
      const [r, q] = [shape.top / 2, shape.bottom / 2];
      return Math.PI * (r + q) * Math.hypot(r - q, shape.height) + Math.PI * q * q;
    }
    case 'tube':
      return Math.PI * shape.diameter * shape.length;
  }
}

/** What to do after too much of one part went in. */
export interface Rescue {
  /** Whole batch afterwards, ml. */
  readonly ml: number;
  readonly parts: readonly (MixedPart & {
    /** What is still to be poured of this part, ml; 0 for the one that was overpoured. */
    readonly more: number;
  })[];
}

/**
 * Saves a batch in which more of a part was poured than meant: the others are brought up to the same proportion.
 * @param index which part; those before it are in the cup as planned, those after it are not yet.
 * @param pouredMl what really went in of it. @returns null when it is not more than planned: pour the rest of it.
 */
export function rescueOverpour(
  parts: readonly MixPart[],
  totalMl: number,
  index: number,
  pouredMl: number,
): Rescue | null {
  const planned = mixByParts(parts, { total: totalMl }).parts;
  const meant = planned[index];
  if (!meant || !(pouredMl > meant.ml * (1 + 1e-9))) return null;
  const ml = (totalMl * pouredMl) / meant.ml;
  const mixed = mixByParts(parts, { total: ml });
  return {
    ml,
    parts: mixed.parts.map((p, i) => ({
      ...p,
      more: i === index ? 0 : i < index ? p.ml - planned[i]!.ml : p.ml,
    })),
  };
}

/** Cups a shop has, ml; common practice (no source). */
export const USUAL_CUPS: readonly number[] = [180, 385, 600, 750, 1400, 2300];

/** The smallest cup that holds a batch with some room above it; null when none does. */
export function cupFor(ml: number, cups: readonly number[] = USUAL_CUPS): number | null {
  return [...cups].sort((a, b) => a - b).find((c) => ml <= c * 0.95) ?? null;
}

/** A batch rounded up to what can be read off a cup: 10 ml under 300, 25 above. */
export function roundUpBatch(ml: number): number {
  const step = ml < 300 ? 10 : 25;
  return Math.ceil(ml / step - 1e-9) * step;
}

/** A piece by its shape: `area` in m2, the other measures in m; `count` alike. */
export interface ShapedPiece {
  readonly shape: BodyShape['kind'] | 'area';
  readonly measures: Readonly<Partial<Record<string, number | undefined>>>;
  readonly count: number;
}

/** Area of a piece and all alike, m2; null while a measure is missing or no measure. */
export function pieceArea(piece: ShapedPiece): number | null {
  try {
    const one =
      piece.shape === 'area'
        ? (piece.measures['area'] ?? NaN)
        : // Measures that are missing or too many are found there: it checks them.
          bodyArea({ kind: piece.shape, ends: 0, ...piece.measures } as unknown as BodyShape);
    return Number.isFinite(one) && one > 0 ? one * piece.count : null;
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

export function areaOf(pieces: readonly ShapedPiece[]): number {
  return pieces.reduce((sum, p) => sum + (pieceArea(p) ?? 0), 0);
}
