/**
 * A simple index of how grainy a flake coat looks, 0 (smooth) upward: contrast of the flakes that light up in one resolved
 * spot. A spot of 0.3 mm (about what the eye resolves at arm's length, from memory) holds N flakes of diameter d; a share p of
 * them is tilted into the lamp. Counts scatter by Poisson, so the contrast is 1 / sqrt(p N), weighted by the cover.
 * It orders finishes; it is not an instrument's reading, and is labelled so where it is shown.
 * @param sizeUm median flake diameter, um. @param cover 0..1. @param tiltDeg rms tilt per axis, degrees.
 */
export function sparkleIndex(sizeUm: number, cover: number, tiltDeg: number): number {
  if (cover <= 0) return 0;
  const spotUm = 300;
  const perSpot = -Math.log(1 - Math.min(cover, 0.999)) * (spotUm / sizeUm) ** 2;
  // A lamp of about 2 degrees lights the flakes within 1 degree of the mirroring tilt.
  const lit = 1 - Math.exp(-1 / (2 * tiltDeg * tiltDeg));
  return cover / Math.sqrt(Math.max(1e-9, lit * perSpot));
}
