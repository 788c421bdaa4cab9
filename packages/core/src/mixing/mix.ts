/** One component of a mix by volume parts; density in g/ml where it is known. */
export interface MixPart {
  readonly name: string;
  readonly parts: number;
  readonly density?: number | undefined;
}

export interface MixedPart {
  readonly name: string;
  readonly ml: number;
  /** Null where the density is not known. */
  readonly grams: number | null;
  /** Where the cup stands after this component, ml from the bottom. */
  readonly mark: number;
  /** What the scale shows after this component; null from the first unknown density on. */
  readonly runningGrams: number | null;
}

/**
 * Divides a batch by volume parts; cup marks and scale totals are cumulative, in pouring order.
 * @param amount `total`: the whole batch in ml. `firstTo`: the mark the first component is poured to (ml, or any cup scale).
 */
export function mixByParts(
  parts: readonly MixPart[],
  amount: { readonly total: number } | { readonly firstTo: number },
): { readonly parts: readonly MixedPart[]; readonly ml: number } {
  const sum = parts.reduce((s, p) => s + p.parts, 0);
  const unit = 'total' in amount ? amount.total / sum : amount.firstTo / parts[0]!.parts;
  let poured = 0;
  let scale: number | null = 0;
  const mixed = parts.map((p): MixedPart => {
    const ml = p.parts * unit;
    const grams = p.density === undefined ? null : ml * p.density;
    poured += ml;
    scale = scale === null || grams === null ? null : scale + grams;
    return { name: p.name, ml, grams, mark: poured, runningGrams: scale };
  });
  return { parts: mixed, ml: poured };
}
