import type { Gun } from '../products/guns';

/** How a gun is set for a coat. */
export interface GunSettings {
  readonly overlap: number;
  readonly distanceCm: number;
  readonly pressureBar: number;
  readonly turns: number;
  readonly tipMm: number;
  readonly speedCmS: number;
}

/** Less lands for every cm further away than the gun's own distance, in ln; ours. */
const LOST_PER_CM = 0.02;
/** Less lands for every bar above the gun's own pressure, in ln: finer drops drift; ours. */
const LOST_PER_BAR = 0.15;
/** A needle gives more up to this many times the gun's own turns, then the tip is what limits; ours. */
const MOST_TURNS = 1.6;
/** A hand is steady from half the gun's own speed to twice it; ours. */
const SLOWEST = 0.45;
const FASTEST = 2.2;
/** Needles are changed by quarter turns; common practice (no source). */
const TURN_STEP = 0.25;

/** Width of the fan at a distance, cm: a cone, so it grows with it. */
export function fanAt(gun: Pick<Gun, 'fanCm' | 'distanceCm'>, distanceCm: number): number {
  return (gun.fanCm * distanceCm) / gun.distanceCm;
}

/** Share of the spray that lands, 0..1: the gun's own at its own distance and pressure, less from further away and under more. */
export function landingAt(
  gun: Pick<Gun, 'transfer' | 'distanceCm' | 'pressureBar'>,
  at: Pick<GunSettings, 'distanceCm' | 'pressureBar'>,
): number {
  const lost = LOST_PER_CM * (at.distanceCm - gun.distanceCm) + LOST_PER_BAR * (at.pressureBar - gun.pressureBar);
  return Math.min(1, Math.max(0.03, gun.transfer * Math.exp(-lost)));
}

/** What leaves the gun, ml a minute: with the needle's turns up to where the tip limits it, with the area of the tip. */
export function flowAt(
  gun: Pick<Gun, 'flowMlMin' | 'turns' | 'tipMm'>,
  at: Pick<GunSettings, 'turns' | 'tipMm'>,
): number {
  return gun.flowMlMin * Math.min(MOST_TURNS, at.turns / gun.turns) * (at.tipMm / gun.tipMm) ** 2;
}

/**
 * Dry film of one coat as it is set, um: flow x solids x what lands over the area a minute of spraying covers. How flow, landing
 * and fan follow needle, tip, distance and pressure are defaults of ours.
 * @param volumeSolids ready to spray, fraction
 */
export function filmOfSettings(gun: Gun, at: GunSettings, volumeSolids: number): number {
  const cm2AMinute = at.speedCmS * 60 * fanAt(gun, at.distanceCm) * (1 - at.overlap);
  return ((flowAt(gun, at) * volumeSolids * landingAt(gun, at)) / cm2AMinute) * 1e4;
}

/**
 * Needle and speed that lay a film from a given distance, pressure, tip and overlap: the needle by quarter turns at the gun's
 * own speed, or as many turns as are given; then the speed makes up the rest. Where neither reaches, the nearest a hand can do.
 * @param filmUm dry, um
 */
export function settingsForFilm(
  gun: Gun,
  {
    turns: wantedTurns = null,
    ...at
  }: Pick<GunSettings, 'overlap' | 'distanceCm' | 'pressureBar' | 'tipMm'> & {
    readonly turns?: number | null;
  },
  volumeSolids: number,
  filmUm: number,
): GunSettings {
  const lays = (turns: number, speedCmS: number) => filmOfSettings(gun, { ...at, turns, speedCmS }, volumeSolids);
  const wanted = (filmUm / lays(gun.turns, gun.speedCmS)) * gun.turns;
  const least = Math.min(TURN_STEP * 2, gun.turns);
  const most = Math.floor((gun.turns * MOST_TURNS) / TURN_STEP + 1e-9) * TURN_STEP;
  const turns = wantedTurns ?? Math.max(least, Math.min(most, Math.round(wanted / TURN_STEP) * TURN_STEP));
  const speed = gun.speedCmS * (lays(turns, gun.speedCmS) / filmUm);
  const speedCmS = Math.min(gun.speedCmS * FASTEST, Math.max(gun.speedCmS * SLOWEST, speed));
  return { ...at, turns, speedCmS: Number(speedCmS.toFixed(speedCmS < 10 ? 1 : 0)) };
}
