export { libraryOf, prepareLibrary, REFERENCE_LIBRARY, type PreparedLibrary } from './shop';
export { DYES, type Dye } from './dyes';
export { EFFECT_PIGMENTS, findPigment, type EffectPigment } from './effectPigments';
export { SOLIDS, findSolid, solidsInFilm, type SolidPigment, type SolidShare } from './solids';
export {
  coloursOf,
  COLOUR_KINDS,
  mergeLibrary,
  usedByMaterials,
  thicknessOf,
  pigmentFromThickness,
  dyeFromDrawdowns,
  FILM_NM,
  type ColourKind,
  type FlakeStructure,
  type Library,
  type OwnColour,
  type OwnMaterial,
  type OwnGround,
  type OwnPigment,
  type OwnDye,
  type OwnSystem,
  type StrengthSource,
} from './ownMaterials';
export { CARRIERS, findCarrier, type Carrier } from './carriers';
export { coverFromParts, depthFromParts, partsForDepth, sayParts, sharesFromParts } from './mixStrength';
export {
  GROUNDS,
  findGround,
  groundCoats,
  labToAlbedo,
  lookToAlbedo,
  albedoToLab,
  type GroundMaterial,
} from './grounds';
export { solidsLook, type SolidsLook } from './solidsLook';
export { MIXES, findMix, holdsFlake, mixCoat } from './mixes';
export { type EffectMix } from './effectMix';
