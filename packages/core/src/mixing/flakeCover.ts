/**
 * Area covered by flakes thrown at random (Poisson): 1 - exp(-grams/m2 x area per gram x shape).
 * @param thicknessUm flake thickness, um. @param density g/cm3. @param shape 1 for flat flakes lying flat.
 */
export function flakeCover(gramsPerM2: number, thicknessUm: number, density: number, shape = 1): number {
  return -Math.expm1((-gramsPerM2 * shape) / (density * thicknessUm));
}

/** Grams per m2 that give a cover; inverse of {@link flakeCover}. @param cover 0..1, below 1. */
export function gramsForCover(cover: number, thicknessUm: number, density: number, shape = 1): number {
  return (-Math.log1p(-cover) * density * thicknessUm) / shape;
}
