/**
 * Reflectance of a pigment coat over a background, all inside the film. Kubelka-Munk 1931, hyperbolic solution.
 * @param k absorption and @param s scattering per um. @param thicknessUm um. @param over internal reflectance below.
 */
export function kubelkaMunkOver(k: number, s: number, thicknessUm: number, over: number): number {
  const kx = k * thicknessUm;
  const sx = s * thicknessUm;
  if (sx < 1e-12) return over * Math.exp(-2 * kx);
  const a = 1 + kx / sx;
  const b = Math.sqrt(Math.max(0, a * a - 1));
  const x = b * sx;
  // b coth(b S) with its limits: 1/S without absorption, b when nothing shines through.
  const bCoth = b < 1e-9 ? 1 / sx : x > 20 ? b : b / Math.tanh(x);
  return (1 - over * (a - bCoth)) / (a - over + bCoth);
}

/** Reflectance of an infinitely thick coat. */
export function kubelkaMunkInfinite(k: number, s: number): number {
  if (s <= 0) return 0;
  const ratio = k / s;
  return 1 + ratio - Math.sqrt(ratio * ratio + 2 * ratio);
}
