import { CoreError } from '../errors';
import type { Coat } from '../optics/coat';
import { dyeDepth, DYES, type Dye } from './dyes';
import type { FinishFamily } from '../finishes/families';
import { EFFECT_PIGMENTS, findPigment, type EffectPigment } from './effectPigments';

/** What is in the cup: a mixed effect system, per nominal full coat. Everything here is invented for the demo. */
export interface EffectMix {
  readonly id: string;
  readonly name: string;
  readonly family: FinishFamily;
  readonly carrierId: string;
  /** Parts at strength 1, as they are written on the sheet, the carrier first; none where they are not known. */
  readonly parts: readonly {
    readonly name: string;
    readonly parts: number;
    /** g/ml, where it is known. */
    readonly density?: number;
    /** Dye this part is the concentrate of. */
    readonly dyeId?: string;
  }[];
  readonly dyes: readonly { readonly dyeId: string; readonly depth: number }[];
  readonly flake?: { readonly pigmentId: string; readonly cover: number };
  /** Dry film of a nominal full coat, um. */
  readonly filmUm: number;
  /** Flash at 20 C between coats, minutes. */
  readonly flashMinutes: number;
  readonly pricePerLitre: number;
}

export const MIXES: readonly EffectMix[] = [
  {
    id: 'lagoon-pearl',
    name: 'Lagoon pearl',
    family: 'pearl',
    carrierId: 'binder',
    parts: [
      { name: 'binder', parts: 6, density: 0.94 },
      { name: 'blue pearl, fine', parts: 1, density: 1.12 },
      { name: 'lagoon blue', parts: 0.5, density: 0.97, dyeId: 'lagoon-blue' },
    ],
    dyes: [{ dyeId: 'lagoon-blue', depth: 0.3 }],
    flake: { pigmentId: 'blue-pearl-fine', cover: 0.3 },
    filmUm: 9,
    flashMinutes: 10,
    pricePerLitre: 96,
  },
  {
    id: 'moonmilk-pearl',
    name: 'Moonmilk pearl',
    family: 'pearl',
    carrierId: 'binder',
    parts: [
      { name: 'binder', parts: 6, density: 0.94 },
      { name: 'gold pearl, coarse', parts: 1, density: 1.14 },
    ],
    dyes: [],
    flake: { pigmentId: 'gold-pearl-coarse', cover: 0.26 },
    filmUm: 8,
    flashMinutes: 10,
    pricePerLitre: 88,
  },
  {
    id: 'cinder-candy',
    name: 'Cinder candy',
    family: 'candy',
    carrierId: 'intercoat',
    parts: [
      { name: 'intercoat clear', parts: 8, density: 0.93 },
      { name: 'cinder red', parts: 1, density: 0.96, dyeId: 'cinder-red' },
    ],
    dyes: [{ dyeId: 'cinder-red', depth: 0.9 }],
    filmUm: 10,
    flashMinutes: 12,
    pricePerLitre: 78,
  },
  {
    id: 'smoke-tea-clear',
    name: 'Smoke tea tinted clear',
    family: 'tinted-clear',
    carrierId: 'two-pack-clear',
    parts: [
      { name: 'two-pack clear', parts: 20, density: 1.0 },
      { name: 'peat brown', parts: 1, density: 0.98, dyeId: 'peat-brown' },
    ],
    dyes: [{ dyeId: 'peat-brown', depth: 1.1 }],
    filmUm: 23,
    flashMinutes: 15,
    pricePerLitre: 70,
  },
];

export function findMix(id: string, systems: readonly EffectMix[] = MIXES): EffectMix {
  const found = systems.find((s) => s.id === id);
  if (!found) throw new CoreError('notFound', `There is no effect system called ${id}.`);
  return found;
}

/**
 * One nominal full coat of a system at a strength (1 = the parts on the sheet). Dye depth and flake depth are both
 * proportional to strength: a(l) = strength a1(l), c = 1 - (1 - c1)^strength.
 */
export function mixCoat(
  system: EffectMix,
  strength = 1,
  dyes: readonly Dye[] = DYES,
  pigments: readonly EffectPigment[] = EFFECT_PIGMENTS,
): Coat {
  const dye = new Float64Array(31);
  for (const { dyeId, depth } of system.dyes) {
    dyeDepth(dyeId, dyes).forEach((v, i) => (dye[i]! += v * depth * strength));
  }
  if (!system.flake) return { dye };
  const { cover } = system.flake;
  const pigment = findPigment(system.flake.pigmentId, pigments);
  return {
    dye,
    flakes: {
      cover: 1 - (1 - cover) ** strength,
      tilt: pigment.tilt,
      edge: pigment.edge,
      optics: pigment.optics,
    },
  };
}
