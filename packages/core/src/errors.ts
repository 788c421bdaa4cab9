export type CoreErrorCode =
  'badGeometry' | 'badStack' | 'badFilm' | 'badMaterial' | 'badQuantity' | 'badLadder' | 'notFound';

/** The one error the core throws, for preconditions a caller broke. Expected outcomes of the trade are results instead. */
export class CoreError extends Error {
  constructor(
    readonly code: CoreErrorCode,
    message: string,
  ) {
    super(message);
    this.name = 'CoreError';
  }
}
