/**
 * Flop index of Alman from L* at 15, 45 and 110 degrees from the mirror: 2.69 (L15 - L110)^1.11 / L45^0.86
 * (constants from memory). 0 for a finish that does not darken toward the flop.
 */
export function flopIndex(l15: number, l45: number, l110: number): number {
  const fall = l15 - l110;
  return fall <= 0 || l45 <= 0 ? 0 : (2.69 * fall ** 1.11) / l45 ** 0.86;
}
