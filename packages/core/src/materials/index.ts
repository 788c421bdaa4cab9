export { libraryOf, prepareLibrary, REFERENCE_LIBRARY, type PreparedLibrary } from './shop';
export { DYES, type Dye } from './dyes';
export { EFFECT_PIGMENTS, findPigment, type EffectPigment } from './effectPigments';
export {
  mergeLibrary,
  usedByMaterials,
  thicknessOf,
  pigmentFromThickness,
  dyeFromDrawdowns,
  FILM_NM,
  type FlakeStructure,
  type Library,
  type OwnMaterial,
  type OwnGround,
  type OwnPigment,
  type OwnDye,
  type OwnSystem,
  type OwnMixDye,
  type StrengthSource,
} from './ownMaterials';
export { CARRIERS, findCarrier, type Carrier } from './carriers';
export { coverFromParts, depthFromParts, partsForDepth, sayParts } from './mixStrength';
export { GROUNDS, findGround, labToAlbedo, lookToAlbedo, type GroundMaterial } from './grounds';
export { MIXES, findMix, mixCoat, type EffectMix } from './systems';
