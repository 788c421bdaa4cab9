import { createFilm, type Film } from '../optics/film';
import { prepareCoat } from '../optics/coat';
import { createOptics } from '../optics/optics';
import { createFastModel, type FastModel } from '../optics/stack';
import type { Geometry } from '../optics/geometry';
import { groundCoats, GROUNDS, labToAlbedo, type GroundMaterial } from './grounds';
import { CARRIERS } from './carriers';
import { DYES } from './dyes';
import { EFFECT_PIGMENTS } from './effectPigments';
import { mergeLibrary, type Library, type OwnMaterial } from './ownMaterials';
import { MIXES, mixCoat, type EffectMix } from './systems';
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
  readonly ground: (material: GroundMaterial) => MapGround;
  readonly grounds: () => readonly MapGround[];
  readonly coat: (system: EffectMix, strength: number) => PreparedCoat;
}

/** The library every shop starts with. */
export const REFERENCE_LIBRARY: Library = {
  grounds: GROUNDS,
  pigments: EFFECT_PIGMENTS,
  dyes: DYES,
  carriers: CARRIERS,
  systems: MIXES,
};

export function prepareLibrary(own: readonly OwnMaterial[] = [], n = 1.5): PreparedLibrary {
  const film = createFilm(n);
  const library = mergeLibrary(film, REFERENCE_LIBRARY, own);
  const models = new Map<string, FastModel>();
  const grounds = new Map<GroundMaterial, MapGround>();
  const unit = new Map<EffectMix, PreparedCoat>();
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
    model: (geometries) => {
      const key = JSON.stringify(geometries.map((g) => [g.incidence, g.aspecular]));
      let known = models.get(key);
      if (!known) models.set(key, (known = createFastModel(createOptics(film, geometries))));
      return known;
    },
    ground,
    grounds: () => library.grounds.map(ground),
    coat: (system, strength) => {
      let full = unit.get(system);
      if (!full) unit.set(system, (full = prepareCoat(film, mixCoat(system, 1, library.dyes, library.pigments))));
      return { ...full, a: full.a.map((v) => v * strength), tau: full.tau * strength };
    },
  };
}

/** The shop's materials beside those of the reference library. */
export const libraryOf = (own: readonly OwnMaterial[]): Library => mergeLibrary(createFilm(), REFERENCE_LIBRARY, own);
