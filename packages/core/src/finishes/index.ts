export {
  layerFilmUm,
  layersOf,
  materialsOf,
  recipeOf,
  stackFilmUm,
  laidFilmsUm,
  laidFilmUm,
  type LaidWith,
  startingLayers,
  withRecipe,
  LAYER_FILM_UM,
  LAYER_NAMES,
  STARTING_STACKS,
  USUAL_LIMIT_UM,
  type PieceStack,
  type StackLayer,
  type StackLayerKind,
} from './layers';
export {
  type ProductKind,
  FAMILIES,
  FAMILY_IDS,
  TRY_OUT_FAMILIES,
  type FamilyLayer,
  type FamilyRow,
  type FinishFamily,
  type Wanted,
} from './families';
export { andControl, STYLES, NOMINAL_HAND, type CoatStyle, type Hand, type StyleId } from './styles';
export {
  BLEND_WIDER,
  defaultTolerance,
  DEFAULT_TOLERANCES,
  familyTable,
  limitAt,
  MEETINGS,
  USUAL_LIMIT_SOURCE,
  type MatchLimits,
  type Meeting,
} from './tolerances';
export { countOf, countsControl, startRecipe, thenLaid, withCount, type Recipe } from './recipe';
export { CLEAR_STATES, TEXTURES, type ClearState, type Texture, type TextureRow } from './texture';
