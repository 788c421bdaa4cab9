import type { PreparedCoat } from './coat';

/** What lies under the coats: an internal Lambertian albedo, and for an existing finish its lobe by geometry. */
export interface Ground {
  /** 31 internal albedos, 0..1. */
  readonly albedo: Float64Array;
  /** Lobe part of an existing finish, outside the film, [geometry * 31 + wavelength]. */
  readonly lobe?: Float64Array;
}

/** A ground made ready: its Lambertian base and the coats that belong to it (a metallic's flakes). */
export interface PreparedGround extends Ground {
  readonly coats: readonly PreparedCoat[];
}

/** A ground of the library, by its id. */
export interface MapGround extends PreparedGround {
  readonly id: string;
}
