import { createFilm, type Film } from '../optics/film';
import { prepareCoat, strengthenCoat } from '../optics/coat';
import { coatsOver, hidingCoat, showsThrough, type HidingCoat } from '../optics/hiding';
import { createOptics } from '../optics/optics';
import { createFastModel, type FastModel } from '../optics/stack';
import type { Geometry } from '../optics/geometry';
import { groundCoats, GROUNDS, labToAlbedo, type GroundMaterial } from './grounds';
import { CARRIERS } from './carriers';
import { DYES } from './dyes';
import { EFFECT_PIGMENTS } from './effectPigments';
import { mergeLibrary, type Library, type OwnMaterial } from './ownMaterials';
import type { EffectMix } from './effectMix';
import { MIXES, mixCoat } from './mixes';
import { SOLIDS } from './solids';
import type { MapGround } from '../optics/preparedGround';
import type { PreparedCoat } from '../optics/coat';

/**
 * The library made ready for computation: grounds and coats prepared once, fast models kept by geometry. Create one per
 * worker or script; it owns every cache, nothing is global.
 */
export interface PreparedLibrary {
  readonly film: Film;
  /** The reference library and the shop's own materials. */
  readonly library: Library;
  readonly model: (geometries: readonly Geometry[]) => FastModel;
  /** A ground that hides what lies below it. */
  readonly ground: (material: GroundMaterial) => MapGround;
  /** Some full coats of a ground over an internal albedo: from the coats on in which it hides, the ground as it is. */
  readonly groundOver: (material: GroundMaterial, coats: number, below: Float64Array) => MapGround;
  /** Share of a difference below some full coats of a ground that still shows; 1 for none of them. */
  readonly shows: (material: GroundMaterial, coats: number) => number;
  readonly grounds: () => readonly MapGround[];
  readonly coat: (system: EffectMix, strength: number) => PreparedCoat;
}

/** The library every shop starts with. */
export const REFERENCE_LIBRARY: Library = {
  grounds: GROUNDS,
  pigments: EFFECT_PIGMENTS,
  dyes: DYES,
  solids: SOLIDS,
  carriers: CARRIERS,
  systems: MIXES,
};

/** Films of a coat at which what shows through is kept: blends that are tried pass through the same ones again and again. */
const SHOWS_STEPS = 200;

/** Keeps what was made for a set of geometries. */
function kept<M>(make: (geometries: readonly Geometry[]) => M): (geometries: readonly Geometry[]) => M {
  const models = new Map<string, M>();
  return (geometries) => {
    const key = JSON.stringify(geometries.map((g) => [g.incidence, g.aspecular]));
    let known = models.get(key);
    if (!known) models.set(key, (known = make(geometries)));
    return known;
  };
}

export function prepareLibrary(own: readonly OwnMaterial[] = [], n = 1.5): PreparedLibrary {
  const film = createFilm(n);
  const library = mergeLibrary(film, REFERENCE_LIBRARY, own);
  const modelOf = kept((geometries) => createFastModel(createOptics(film, geometries)));
  const grounds = new Map<GroundMaterial, MapGround>();
  const unit = new Map<EffectMix, PreparedCoat>();
  const hiding = new Map<GroundMaterial, HidingCoat>();
  const shows = new Map<GroundMaterial, Map<number, number>>();
  const hidingOf = (material: GroundMaterial): HidingCoat => {
    let known = hiding.get(material);
    if (!known) hiding.set(material, (known = hidingCoat(film, ground(material).albedo, material.hidesIn)));
    return known;
  };
  const ground = (material: GroundMaterial): MapGround => {
    let known = grounds.get(material);
    if (!known) {
      const coats = groundCoats(material, library.dyes, library.pigments).map((c) => prepareCoat(film, c));
      known = { id: material.id, albedo: labToAlbedo(film, material.lab), coats };
      grounds.set(material, known);
    }
    return known;
  };
  return {
    film,
    library,
    model: modelOf,
    ground,
    groundOver: (material, coats, below) => {
      const whole = ground(material);
      if (coats >= material.hidesIn) return whole;
      const share = Math.max(0, coats) / material.hidesIn;
      return {
        ...whole,
        albedo: coatsOver(hidingOf(material), Math.max(0, coats), below),
        coats: share > 0 ? whole.coats.map((c) => ({ ...c, factor: c.factor * share })) : [],
      };
    },
    shows: (material, coats) => {
      if (coats >= material.hidesIn) return 0;
      const step = Math.max(0, Math.round(coats * SHOWS_STEPS));
      let known = shows.get(material);
      if (!known) shows.set(material, (known = new Map<number, number>()));
      let share = known.get(step);
      if (share === undefined) known.set(step, (share = showsThrough(film, hidingOf(material), step / SHOWS_STEPS)));
      return share;
    },
    grounds: () => library.grounds.map(ground),
    coat: (system, strength) => {
      let full = unit.get(system);
      if (!full) unit.set(system, (full = prepareCoat(film, mixCoat(system, library))));
      return strengthenCoat(full, strength);
    },
  };
}

/** The shop's materials beside those of the reference library. */
export const libraryOf = (own: readonly OwnMaterial[]): Library => mergeLibrary(createFilm(), REFERENCE_LIBRARY, own);
