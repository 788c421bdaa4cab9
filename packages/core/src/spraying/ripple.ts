export type FanProfile = 'bell' | 'elliptical' | 'flat';

/**
 * Film a fan lays across the pass, relative, at y (fan widths from its centre, -0.5..0.5); 0 outside.
 * Bell: cosine squared. Elliptical: half ellipse. Flat: 1 on the plateau (fraction of the width), straight to 0 at the rim.
 */
export function fanFilm(profile: FanProfile, y: number, plateau = 0.5): number {
  const a = Math.abs(y);
  if (a >= 0.5) return 0;
  if (profile === 'bell') return Math.cos(Math.PI * a) ** 2;
  if (profile === 'elliptical') return Math.sqrt(1 - 4 * a * a);
  return a <= plateau / 2 ? 1 : (0.5 - a) / (0.5 - plateau / 2);
}

/**
 * Share of a fan's film that lies above y (fan widths from its centre), 0..1: the integral of {@link fanFilm} over all of it, in
 * closed form.
 */
export function fanShare(profile: FanProfile, y: number, plateau = 0.5): number {
  const a = Math.min(0.5, Math.abs(y));
  // From the centre to a, as a share of the half.
  let half: number;
  if (profile === 'bell') half = 2 * a + Math.sin(2 * Math.PI * a) / Math.PI;
  else if (profile === 'elliptical') half = (2 / Math.PI) * (Math.asin(2 * a) + 2 * a * Math.sqrt(1 - 4 * a * a));
  else {
    const [flat, rim] = [plateau / 2, 0.5 - plateau / 2];
    const all = flat + rim / 2;
    const beyond = Math.max(0, a - flat);
    half = (Math.min(a, flat) + beyond - (rim > 0 ? beyond ** 2 / (2 * rim) : 0)) / all;
  }
  return 0.5 + (Math.sign(y) * half) / 2;
}

/**
 * Unevenness of many parallel passes: film summed over passes a pitch apart, pitch = width x (1 - overlap). It does not
 * depend on the width itself.
 * @param overlap 0..0.95. @returns ripple = (max - min) / mean, cv = standard deviation / mean.
 */
export function passRipple(profile: FanProfile, overlap: number, plateau = 0.5): { ripple: number; cv: number } {
  const pitch = 1 - overlap;
  const reach = Math.ceil(0.5 / pitch) + 1;
  const samples = 4000;
  let min = Infinity;
  let max = 0;
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < samples; i++) {
    const y = (i / samples) * pitch;
    let film = 0;
    for (let k = -reach; k <= reach; k++) film += fanFilm(profile, y - k * pitch, plateau);
    min = Math.min(min, film);
    max = Math.max(max, film);
    sum += film;
    squares += film * film;
  }
  const mean = sum / samples;
  return { ripple: (max - min) / mean, cv: Math.sqrt(Math.max(0, squares / samples / (mean * mean) - 1)) };
}
