export { layerLooks, opticalStack } from './looks/layerLooks';
export { CoreError, type CoreErrorCode } from './coreError';
export { createRandom, normal } from './numeric/random';
export { createShop, REFERENCE_LIBRARY, type Shop } from './materials/shop';
export {
  layerFilmUm,
  layersOf,
  materialsOf,
  recipeOf,
  stackFilmUm,
  uncountedFilmUm,
  startingLayers,
  withRecipe,
  LAYER_FILM_UM,
  LAYER_NAMES,
  STARTING_STACKS,
  USUAL_LIMIT_UM,
  type PieceStack,
  type StackLayer,
  type StackLayerKind,
  type StackRecipe,
} from './finishes/layers';
export {
  evenTable,
  sampleGeometries,
  sampleTable,
  targetTable,
  tiltOf,
  aspecularOf,
  EVEN,
  LARGEST_INCIDENCE,
  LARGEST_TILT,
} from './optics/sampleTable';

export {
  flatSpectrum,
  spectrumFrom,
  interpolateTable,
  WAVELENGTHS_NM,
  WAVELENGTH_COUNT,
  type Spectrum,
} from './colour/spectrum';
export {
  reflectanceToXyz,
  whitePoint,
  weightsOf,
  D65_10,
  ILLUMINANTS,
  OBSERVERS,
  type Illuminant,
  type Observer,
  type Viewing,
  type Xyz,
} from './colour/tristimulus';
export { xyzToLab, labToXyz, reflectanceToLab, labToLch, type Lab, type Lch } from './colour/lab';
export { de76, de94, de2000, deCmc, DIFFERENCE_FORMULAS, type DifferenceFormula } from './colour/difference';
export { metamerismIndex } from './colour/metamerism';
export {
  exposureFor,
  labToScreen,
  linearOfByte,
  photoLab,
  PHOTO_DOUBT,
  xyzToLinearSrgb,
  xyzToScreen,
  type ScreenColour,
} from './colour/screen';
export { flopIndex } from './colour/flopIndex';
export { spectrumFromLab } from './colour/spectrumFromLab';

export { fresnel, interfaceReflectance, diffuseInterface } from './optics/fresnel';
export { thinFilmPower, type FilmLayer as ThinFilmLayer } from './optics/thinFilm';
export { kubelkaMunkOver, kubelkaMunkInfinite } from './optics/kubelkaMunk';
export { internalToMeasured, measuredToInternal } from './optics/saunderson';
export { createFilm, type Film } from './optics/film';
export { FIVE_ANGLES, enterFilm, type Geometry } from './optics/geometry';
export type { FlakeOptics, SpectralLayer, SpectrumOrNumber } from './optics/flakeOptics';
export { prepareCoat, adjustCoat, type Coat, type Flakes, type Pigment, type PreparedCoat } from './optics/coat';
export { createOptics, type Optics } from './optics/optics';
export { evaluateReference, createFastModel, type FastModel, type Ground, type SlabCache } from './optics/stack';

export { contrastRatio, HIDDEN_FROM } from './optics/hiding';
export { existingFinish } from './optics/existingFinish';
export { sparkleIndex } from './optics/sparkle';

export {
  areaOf,
  bodyArea,
  pieceArea,
  type ShapedPiece,
  cupFor,
  rescueOverpour,
  roundUpBatch,
  USUAL_CUPS,
  type BodyShape,
  type Rescue,
} from './mixing/batch';
export { mixByParts, type MixPart, type MixedPart } from './mixing/mix';
export { quantityMl, spreadingRate, type QuantityInput } from './mixing/quantity';
export { flakeCover, gramsForCover } from './mixing/flakeCover';
export {
  clearToBury,
  flakeAreaPerGram,
  flakeDose,
  flakeVolumes,
  paintFlakes,
  scatterFlakes,
  wantedCover,
  groundShows,
  type CoverAdvice,
  MOST_FLAKE_PER_LITRE,
  STICK_FILM_UM,
  type BuryPlan,
  type FlakeDose,
  type FlakeSize,
  type LyingFlake,
} from './mixing/flake';
export { flakeLayerOf, withFlakeDose, type FlakeLayer } from './mixing/flakeLayer';
export { learnTransfer, leftoverAsGround, needOf, TRANSFER_SD, type Need, type Used } from './mixing/needs';
export {
  additiveSuits,
  adviseAdditive,
  reducerFor,
  reducerPace,
  LARGE_JOB_M2,
  PRODUCT_KINDS,
  STARTING_PRODUCTS,
  type Additive,
  type AdditiveAdvice,
  type AdditiveRole,
  type Product,
} from './mixing/products';
export { type ProductKind } from './finishes/families';
export { parseRatio, type RatioResult } from './mixing/ratio';
export {
  learnTint,
  sealerForShade,
  sealerLook,
  SEALER_TONES,
  type SealerMix,
  type SealerTone,
} from './mixing/sealerShade';
export { potLifeAt, potState, vocOfMix, type PotState, type VocPart } from './mixing/voc';
export {
  fromShown,
  sayMeasure,
  toShown,
  unitDigits,
  unitName,
  G_PER_OZ,
  M2_PER_FT2,
  ML_PER_FL_OZ,
  PSI_PER_BAR,
  UM_PER_MIL,
  type Measure,
  type UnitSystem,
  sayRange,
  sayWithin,
} from './units/units';
export { parseProductsCsv, productsToCsv, type ProductCandidate, type ProductsCsvResult } from './formats/productsCsv';
export { STARTING_GUNS, type Gun } from './application/guns';
export { fanAt, filmOfSettings, flowAt, landingAt, settingsForFilm, type GunSettings } from './application/gunFilm';
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
} from './application/blend';
export {
  crestAndTrough,
  filmFromGun,
  passChanges,
  passFilm,
  STRIPES_SEEN,
  type PassChange,
  type PassFilm,
  type PassSetup,
} from './application/passes';
export {
  bestOrder,
  orderCost,
  oversprayOn,
  OVERSPRAY_SEEN,
  worstOverspray,
  EXACT_UP_TO,
  type BoothAir,
  type BoothArea,
} from './schedule/boothOrder';
export {
  coatPlan,
  sayCoat,
  sprayMinutes,
  type CardSetUp,
  type CoatEdit,
  type CoatPlanInput,
  type PlannedCoat,
  type School,
} from './schedule/coatPlan';
export {
  ALL,
  NONE,
  reachM2,
  sprayAreas,
  type Cell,
  type CellEdit,
  type JobFinish,
  type JobLayer,
  type JobObject,
  type ObjectCount,
  type Reach,
  type SprayArea,
  type SpraySettings,
} from './jobs/job';
export {
  cellKey,
  ENOUGH,
  EVENT_KINDS,
  eventOf,
  inForce,
  SCUFFED,
  type CellRef,
  type EventKind,
  type JobEvent,
  type Laid,
  type Look,
} from './jobs/events';
export { BAKE_MINUTES, sayCheck, STANDING, usualLook, type Check, type CheckKind } from './jobs/checks';
export {
  BEFORE_CLEAR,
  planJob,
  jobLayers,
  waitBetween,
  type CoatRow,
  type JobPlan,
  type JobPlanInput,
} from './jobs/plan';
export {
  coatsOn,
  jobState,
  laidOf,
  solidsOn,
  type AreaOn,
  type CellState,
  type CheckState,
  type JobState,
  type LayerOn,
  type Step,
} from './jobs/state';
export { evidenceOf, looksLike, seenSpots, type ReadSpot, type SeenSpot } from './jobs/evidence';
export { cupsOf, type Cup } from './jobs/amounts';
export { setUpDifferences, type SetUpDifference } from './jobs/setUp';
export { checkTask, jobTimeline, tasksDone, timeTasks, type JobTimeline } from './jobs/tasks';
export { sayAreas, sayCell, sayCheckOf, sayEvent, sayOn, sayReach, sayStep } from './jobs/say';
export { cupOf, productFor, productKindOf } from './mixing/productOf';
export {
  keptGaps,
  planTimeline,
  type PlannedTask,
  type TimeBatch,
  type TimeConflict,
  type Timeline,
  type TimeTask,
} from './schedule/timeline';
export { fanFilm, passRipple, type FanProfile } from './application/ripple';
export { dewCheck, DEW_MARGIN, flashMinutes, dewPoint, type FlashInput } from './schedule/flash';
export { type Chemistry } from './mixing/products';

export { DYES, type Dye } from './materials/dyes';
export { EFFECT_PIGMENTS, findPigment, type EffectPigment } from './materials/effectPigments';
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
} from './materials/ownMaterials';
export { CARRIERS, findCarrier, type Carrier } from './materials/carriers';
export {
  FAMILIES,
  FAMILY_IDS,
  FAMILY_LIMITS,
  type FamilyLayer,
  type FamilyRow,
  type FinishFamily,
} from './finishes/families';
export { coverFromParts, depthFromParts, partsForDepth, sayParts } from './materials/mixStrength';
export { fitStrength } from './matching/fitStrength';
export { swatchFactors, type SwatchLayer } from './looks/swatch';
export { GROUNDS, findGround, labToAlbedo, lookToAlbedo, type GroundMaterial } from './materials/grounds';
export { SYSTEMS, findSystem, systemCoat, type EffectSystem } from './materials/systems';

export { andControl, STYLES, NOMINAL_HAND, type CoatStyle, type Hand, type StyleId } from './finishes/styles';
export { scoreMatch, type TargetAngle, type MatchScore } from './matching/target';
export { defaultTolerance } from './finishes/tolerances';
export { DEFAULT_TOLERANCES } from './finishes/tolerances';
export { ladderLabs, factorsToLabs, effectCoats, type LadderRecipe } from './matching/ladder';
export { type PreparedGround } from './optics/preparedGround';
export {
  findStopWindow,
  coatGrid,
  interpolateLabs,
  COAT_GRID,
  type StopWindow,
  type CurvePoint,
} from './matching/stopWindow';
export {
  adviseCoats,
  chancesAt,
  logScatter,
  DEFAULT_SCATTER,
  type Advice,
  type Chances,
  type Scatter,
} from './matching/risk';
export {
  assembleMap,
  bestCell,
  computeMapRows,
  computeMatchMap,
  packRows,
  unpackRows,
  mapCounts,
  type MatchMap,
  type MapRow,
  type MapCell,
  type MapPick,
} from './matching/matchMap';
export { recipeFigures, USUAL_TRANSFER, type RecipeFigures } from './matching/figures';
export { lookUnder, targetUnder, type SecondLook } from './matching/light';
export {
  createSearch,
  rateExactly,
  paretoRecipes,
  USUAL_SEARCH,
  type RatedRecipe,
  type Recipe,
  type SearchInput,
  type SearchSpace,
} from './matching/search';
export {
  DROP_ML,
  nudge,
  nudgePours,
  remarkToLabs,
  weakerBy,
  tonerParts,
  type Nudge,
  type NudgeInput,
  type NudgePour,
  type NudgeStep,
  type Remark,
  type TonerDose,
} from './matching/nudge';
export { describeDifference, type DifferenceWords } from './matching/words';

export {
  calibrateHand,
  DEFAULT_PRIOR,
  HAND_MEMBERS,
  knownHandOf,
  MISREAD_LIMIT,
  priorFromCards,
  readingNoise,
  type Calibration,
  type HandMember,
  type HandPrior,
  type KnownHand,
  type RungReading,
} from './letdown/calibrate';
export { assessLadder, filmFactor, type Assessment, type AssessOptions } from './letdown/assess';
export {
  countByEye,
  EYE_VIEWS,
  faceAgainstFlop,
  outOfOrder,
  VERDICTS,
  type EyePosterior,
  type EyeView,
  type RungVerdict,
  type Verdict,
} from './letdown/eye';
export { judgeStudy, runStudy, LOOK_SD, type StudyFigures } from './letdown/study';
export {
  isUnsure,
  liveAdvice,
  liveState,
  wordOfVerdicts,
  type LiveAdvice,
  type LiveState,
  type LookWord,
  type SpotEvidence,
  type SpotState,
  type SpotZone,
} from './letdown/live';

export { averageReadings, READING_LIMITS, type Reading, type AveragedAngle } from './formats/readings';
export {
  angleInName,
  geometryIn,
  importReadings,
  toCgats,
  toColourXml,
  toReadingsCsv,
  type ImportHints,
  type ImportQuestion,
  type ImportResult,
} from './formats/importReadings';
export { parseReadingsCsv, CSV_MAX_LENGTH, type CsvProblem, type CsvResult } from './formats/readingsCsv';
export { mapToCsv } from './formats/mapCsv';
export { decimalIn } from './formats/decimal';
export { demoReadings, type DemoTruth } from './demo/demoReadings';
