import type { Lab } from '@steady-gleam/core/colour';

/** A figure to so many places; nothing is nothing, and has no sign. */
const plain = (value: number, digits: number): string => (Number(value.toFixed(digits)) || 0).toFixed(digits);

/** A colour in CIELAB as it is read: "L* 54, a* -3, b* 12". */
export const sayLab = ([l, a, b]: Lab, digits = 0): string =>
  `L* ${plain(l, digits)}, a* ${plain(a, digits)}, b* ${plain(b, digits)}`;
