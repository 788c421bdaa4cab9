import type { EffectMix } from './effectMix';

/**
 * Flake in a part of effect concentrate against the dry film of a part of carrier, by volume: a usual ready-mixed pearl; ours. With
 * it 1 part in 6 covers a third in 9 um.
 */
const EFFECT_SHARE = 0.119;

/** Depth one part of toner in a hundred parts of carrier gives to 10 um of dry film: a usual concentrate; ours. */
const TONER_DEPTH = 0.06;

/** Cover of a nominal coat from the parts of an effect concentrate, 0..1. @param thicknessUm of a flake */
export function coverFromParts(parts: number, carrierParts: number, filmUm: number, thicknessUm: number): number {
  return -Math.expm1((-EFFECT_SHARE * (parts / carrierParts) * filmUm) / thicknessUm);
}

/** Depth of a dye in a nominal coat, in units of its own spectrum, from its parts. */
export function depthFromParts(parts: number, carrierParts: number, filmUm: number): number {
  return TONER_DEPTH * 100 * (parts / carrierParts) * (filmUm / 10);
}

/** Share of the film that each base colour has, from the parts of all of them and of the carrier; a base alone has 1. */
export function sharesFromParts(parts: readonly number[], carrierParts: number): number[] {
  const all = parts.reduce((sum, p) => sum + p, carrierParts);
  return parts.map((p) => p / all);
}

/** Parts of a toner to one part of carrier for a depth; inverse of {@link depthFromParts}. */
export function partsForDepth(depth: number, filmUm: number): number {
  return depth / depthFromParts(1, 1, filmUm);
}

/** The parts of a mix as they are written on a sheet: "6 binder : 1 blue pearl, fine"; strength scales all that colours. */
export function sayParts(system: Pick<EffectMix, 'parts'>, strength = 1): string {
  if (!system.parts.length) return 'parts not given: as your formula';
  return system.parts.map((p, i) => `${Number((i ? p.parts * strength : p.parts).toFixed(2))} ${p.name}`).join(' : ');
}
