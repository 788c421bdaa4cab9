/**
 * How mirror flakes of rms tilt s (radians per axis) move diffuse light between the escape cone (C) and the trapped class
 * (T), per unit flake depth. Fits to ray sums; from the film equations, section 4 of docs/film-equations.md.
 */
export interface FlakeClasses {
  /** Rms tilt per axis, radians. */
  readonly s: number;
  /** C to T. */
  readonly x: number;
  /** T to C. */
  readonly xt: number;
  /** T staying in its hemisphere. */
  readonly fw: number;
  /** Crossing rate of T. */
  readonly gT: number;
}

export function flakeClasses(s: number, fC: number): FlakeClasses {
  const s2 = s * s;
  const x = 1.79 * s * (1 - 0.9 * s2);
  return { s, x, xt: (x * fC) / (1 - fC), fw: 1.8 * s2 * (1 - s2), gT: 1 + 1.75 * s2 };
}
