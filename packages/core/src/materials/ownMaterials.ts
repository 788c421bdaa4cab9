import { spectrumFromLab } from '../colour/spectrumFromLab';
import type { Lab } from '../colour/lab';
import { CoreError } from '../errors';
import type { Film } from '../optics/film';
import { fresnel } from '../optics/fresnel';
import type { Carrier } from './carriers';
import type { Dye } from './dyes';
import { colourShift, interference, ironOxide, type EffectPigment } from './effectPigments';
import type { GroundMaterial } from './grounds';
import type { SolidPigment } from './solids';
import type { EffectMix } from './effectMix';

/** What a pigment's flake is made of; the film's thickness sets its colour. */
export type FlakeStructure = 'titania-mica' | 'iron-oxide-mica' | 'metal-spacer';

/** Believable film thicknesses, nm: thinner is colourless, thicker orders are not made (common practice, no source). */
export const FILM_NM: Record<FlakeStructure, readonly [number, number]> = {
  'titania-mica': [20, 260],
  'iron-oxide-mica': [10, 160],
  'metal-spacer': [150, 700],
};

interface Own<K extends string> {
  readonly kind: K;
  readonly id: string;
  readonly name: string;
}

/** A ground from the reading of its cleared drawdown: a solid, or a metallic laid over that solid. */
export interface OwnGround extends Own<'ground'> {
  readonly mark: string;
  readonly lab: Lab;
  /** Flakes of a metallic; null for a solid. */
  readonly pigmentId: string | null;
  /** Cover of the metallic, 0..1. */
  readonly cover: number;
  /** Dye that tints the metallic, or null. */
  readonly tintId: string | null;
  readonly tintDepth: number;
  /** Full coats until it hides. */
  readonly hidesIn: number;
  /** Base colours it is mixed of, by volume; none where it was read. Look and hiding follow from them. */
  readonly solids: readonly { readonly solidId: string; readonly parts: number }[];
  readonly pricePerLitre: number;
}

/** An effect pigment from the thickness of its film. */
export interface OwnPigment extends Own<'pigment'> {
  readonly structure: FlakeStructure;
  readonly filmNm: number;
  readonly sizeUm: number;
  readonly tilt: number;
  readonly edge: number;
}

/** A dye from two readings: the bare drawdown, and the same with some coats of dyed clear over it. */
export interface OwnDye extends Own<'dye'> {
  readonly bare: Lab;
  readonly dyed: Lab;
  readonly coats: number;
}

/** What colours a mix: flakes, a dye, or a base colour. */
export type ColourKind = 'flake' | 'dye' | 'solid';
export const COLOUR_KINDS: readonly ColourKind[] = ['flake', 'dye', 'solid'];

/** A colour in a mix of the shop's own. */
export interface OwnColour {
  readonly kind: ColourKind;
  /** Of a pigment, a dye or a base colour. */
  readonly id: string;
  /** Parts as on the sheet; null where they are not known. */
  readonly parts: number | null;
  /** In a nominal coat: cover of flakes, depth of a dye in units of its spectrum, share of a base colour in the film. */
  readonly strength: number;
}

/** Where the strengths of a mix come from: worked out from its parts, typed, or fitted to a reading. */
export type StrengthSource = 'parts' | 'typed' | 'drawdown';

/** A mix: what is in the cup. Parts are those of the painter's own formula; none is ever made up. */
export interface OwnSystem extends Own<'system'> {
  readonly family: EffectMix['family'];
  readonly carrierId: string;
  readonly carrierParts: number | null;
  readonly colours: readonly OwnColour[];
  readonly strengthFrom: StrengthSource;
  /** The reading the strengths were fitted to: lamp at 45 degrees, seen from the normal. */
  readonly drawdown: { readonly groundId: string; readonly coats: number; readonly lab: Lab } | null;
  readonly filmUm: number;
  readonly flashMinutes: number;
  readonly pricePerLitre: number;
}

/** What carries colour or flake, by its sheet. */
export interface OwnCarrier extends Own<'carrier'> {
  readonly chemistry: Carrier['chemistry'];
  /** Ready to spray, fraction. */
  readonly volumeSolids: number;
  readonly filmUm: number;
  readonly densityGPerMl: number;
  readonly flashMinutes: number;
}

export type OwnMaterial = OwnGround | OwnPigment | OwnDye | OwnCarrier | OwnSystem;

/** The materials of one shop: the reference library and its own. */
export interface Library {
  readonly grounds: readonly GroundMaterial[];
  readonly pigments: readonly EffectPigment[];
  readonly dyes: readonly Dye[];
  readonly solids: readonly SolidPigment[];
  readonly carriers: readonly Carrier[];
  readonly systems: readonly EffectMix[];
}

/** Effect pigment with a film of this thickness. @throws CoreError `badMaterial` outside {@link FILM_NM}. */
export function pigmentFromThickness(own: OwnPigment): EffectPigment {
  const [lo, hi] = FILM_NM[own.structure];
  if (!(own.filmNm >= lo && own.filmNm <= hi)) {
    throw new CoreError('badMaterial', `A film of this kind is between ${lo} and ${hi} nm thick.`);
  }
  const make = { 'titania-mica': interference, 'iron-oxide-mica': ironOxide, 'metal-spacer': colourShift }[
    own.structure
  ];
  return { ...make(own.id, own.name, own.filmNm), sizeUm: own.sizeUm, tilt: own.tilt, edge: own.edge };
}

/** Deepest dye that two readings can tell, napierian depth of one coat. */
const DEEPEST = 6;

/**
 * Depth spectrum of one coat of a dye from two readings at 45 degrees in, seen from the normal. Smooth metamers of both looks
 * are taken; light crosses the dye at 1/cos in and out and, inside, again on every diffuse return, so the depth is found by
 * bisection at each wavelength. It is one of many spectra with these looks.
 */
export function dyeFromDrawdowns(film: Film, own: OwnDye): Dye {
  const bare = spectrumFromLab(own.bare).spectrum;
  const dyed = spectrumFromLab(own.dyed).spectrum;
  const cosIn = Math.sqrt(1 - 0.5 / film.n ** 2);
  const surface = ((1 - fresnel(1, film.n, Math.SQRT1_2).r) * (1 - fresnel(1, film.n, 1).r)) / film.n ** 2;
  const look = (rho: number, a: number): number => {
    // Saunderson in two classes with a pure absorber: returned shares of the escape cone and of the trapped light.
    const back = film.fC * film.rC * Math.exp(-2 * a * film.mC) + film.fT * Math.exp(-2 * a * film.mT(a));
    return (surface * rho * Math.exp(-a * (1 / cosIn + 1))) / (1 - rho * back);
  };
  const depth = bare.map((v, i) => {
    const rho = Math.min(0.995, v / (surface + film.internal * v));
    if (dyed[i]! >= v) return 0;
    let [lo, hi] = [0, DEEPEST * own.coats];
    for (let k = 0; k < 50; k++) {
      const mid = (lo + hi) / 2;
      if (look(rho, mid) > dyed[i]!) lo = mid;
      else hi = mid;
    }
    return lo / own.coats;
  });
  return { id: own.id, name: own.name, depth, note: 'From two drawdown readings of this shop.' };
}

function toGround(own: OwnGround): GroundMaterial {
  const { id, name, mark, lab, hidesIn, pricePerLitre, pigmentId, cover, tintId, tintDepth } = own;
  const solid = { id, name, mark, lab, hidesIn, pricePerLitre };
  if (!pigmentId) return solid;
  return { ...solid, flakes: { pigmentId, cover, ...(tintId ? { tint: [tintId, tintDepth] as const } : {}) } };
}

/** The colours of a library, by their kind. */
export const coloursOf = (
  library: Pick<Library, 'pigments' | 'dyes' | 'solids'>,
  kind: ColourKind,
): readonly { readonly id: string; readonly name: string }[] =>
  ({ flake: library.pigments, dye: library.dyes, solid: library.solids })[kind];

function toSystem(own: OwnSystem, library: Pick<Library, 'pigments' | 'dyes' | 'solids' | 'carriers'>): EffectMix {
  const carrier = library.carriers.find((c) => c.id === own.carrierId);
  const known = own.carrierParts !== null && own.colours.every((c) => c.parts !== null);
  const of = (kind: ColourKind) => own.colours.filter((c) => c.kind === kind);
  return {
    id: own.id,
    name: own.name,
    family: own.family,
    carrierId: own.carrierId,
    parts: known
      ? [
          {
            name: (carrier?.name ?? 'carrier').toLowerCase(),
            parts: own.carrierParts,
            ...(carrier ? { density: carrier.densityGPerMl } : {}),
          },
          ...own.colours.map((c) => ({
            name: (coloursOf(library, c.kind).find((m) => m.id === c.id)?.name ?? c.kind).toLowerCase(),
            parts: c.parts!,
            colourId: c.id,
          })),
        ]
      : [],
    flakes: of('flake').map((c) => ({ pigmentId: c.id, cover: c.strength })),
    dyes: of('dye').map((c) => ({ dyeId: c.id, depth: c.strength })),
    solids: of('solid').map((c) => ({ solidId: c.id, share: c.strength })),
    filmUm: own.filmUm,
    flashMinutes: own.flashMinutes,
    pricePerLitre: own.pricePerLitre,
  };
}

/** The reference library with a shop's own materials added. */
export function mergeLibrary(film: Film, reference: Library, own: readonly OwnMaterial[]): Library {
  const of = <K extends OwnMaterial['kind']>(kind: K) =>
    own.filter((m): m is Extract<OwnMaterial, { kind: K }> => m.kind === kind);
  const pigments = [...reference.pigments, ...of('pigment').map(pigmentFromThickness)];
  const dyes = [...reference.dyes, ...of('dye').map((d) => dyeFromDrawdowns(film, d))];
  const carriers = [...reference.carriers, ...of('carrier')];
  return {
    grounds: [...reference.grounds, ...of('ground').map(toGround)],
    pigments,
    dyes,
    solids: reference.solids,
    carriers,
    systems: [
      ...reference.systems,
      ...of('system').map((s) => toSystem(s, { pigments, dyes, solids: reference.solids, carriers })),
    ],
  };
}

/** What of a shop's own materials leans on one of them: names of mixes and metallic grounds. */
export function usedByMaterials(id: string, own: readonly OwnMaterial[]): string[] {
  const parts = (m: OwnMaterial): (string | null)[] =>
    m.kind === 'system'
      ? [m.carrierId, ...m.colours.map((c) => c.id)]
      : m.kind === 'ground'
        ? [m.pigmentId, m.tintId]
        : [];
  return own.filter((m) => parts(m).includes(id)).map((m) => m.name);
}

/** Structure of a reference pigment that can be copied by thickness, or null. */
export function thicknessOf(pigment: EffectPigment): { structure: FlakeStructure; filmNm: number } | null {
  if (pigment.optics.kind !== 'thinFilm' || pigment.kind === 'glass') return null;
  const structure = { interference: 'titania-mica', 'iron-oxide': 'iron-oxide-mica', spacer: 'metal-spacer' }[
    pigment.kind as string
  ];
  if (!structure) return null;
  return { structure: structure as FlakeStructure, filmNm: pigment.optics.layers.at(-1)!.nm };
}
