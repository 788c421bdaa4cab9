import type { PreparedCoat } from './coat';
import type { Ground } from './stack';

/** A ground made ready: its Lambertian base and the coats that belong to it (a metallic's flakes). */
export interface PreparedGround extends Ground {
  readonly coats: readonly PreparedCoat[];
}

/** A ground of the library, by its id. */
export interface MapGround extends PreparedGround {
  readonly id: string;
}
