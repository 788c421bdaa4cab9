/** Area a litre covers at a dry film, nothing lost, m2/l: 10 x volume solids % / dry film um (handbook). */
export function spreadingRate(volumeSolids: number, dryFilmUm: number): number {
  return (1000 * volumeSolids) / dryFilmUm;
}

export interface QuantityInput {
  /** m2. */
  readonly area: number;
  readonly coats: number;
  /** Dry film of one coat, um. */
  readonly dryFilm: number;
  /** Volume solids ready to spray, fraction. */
  readonly volumeSolids: number;
  /** Share of the spray that lands on the piece, fraction. */
  readonly transferEfficiency: number;
  /** Left in cup, strainer and gun, ml. */
  readonly loss: number;
}

/** Ready-to-spray volume in ml: area x dry film x coats / solids / transfer efficiency + loss (1 m2 of 1 um is 1 ml). */
export function quantityMl(q: QuantityInput): number {
  return (q.area * q.coats * q.dryFilm) / q.volumeSolids / q.transferEfficiency + q.loss;
}
