export { fanAt, filmOfSettings, flowAt, landingAt, settingsForFilm, type GunSettings } from './gunFilm';
export {
  blendPlace,
  blendProfile,
  fadeFactor,
  halosOf,
  steppedLayers,
  suggestBlend,
  SLOPE_UNSEEN,
  type BlendLayer,
  type BlendLook,
  type BlendPlace,
  type BlendSuggestion,
  type BlendProfile,
} from './blend';
export {
  crestAndTrough,
  filmFromGun,
  passChanges,
  passFilm,
  STRIPES_SEEN,
  type PassChange,
  type PassFilm,
  type PassSetup,
} from './passes';
export {
  coatPlan,
  sayCoat,
  sprayMinutes,
  type CoatEdit,
  type CoatPlanInput,
  type PlannedCoat,
  type School,
} from './coatPlan';
export { fanFilm, fanShare, passRipple, type FanProfile } from './ripple';
export { dewCheck, DEW_MARGIN, flashMinutes, dewPoint, type FlashInput } from './flash';
export { setUpOf, type SetUp, type SetUpDifference, type SetUpFigure } from './setUp';
