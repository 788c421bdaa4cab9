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
} from './batch';
export { mixByParts, type MixPart, type MixedPart } from './mix';
export { quantityMl, spreadingRate, type QuantityInput } from './quantity';
export { flakeCover, gramsForCover } from './flakeCover';
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
} from './flake';
export { flakeLayerOf, withFlakeDose, type FlakeLayer } from './flakeLayer';
export { learnTransfer, leftoverAsGround, needOf, TRANSFER_SD, type Need, type Used } from './needs';
export { parseRatio, type RatioResult } from './ratio';
export { learnTint, sealerForShade, sealerLook, SEALER_TONES, type SealerMix, type SealerTone } from './sealerShade';
export { potLifeAt, potState, vocOfMix, type PotState, type VocPart } from './voc';
export { MOST_IN_A_CUP, needFor, solidsOf, USUAL_LOSS_ML, whyNotOneBatch, type MixGroup } from './groups';
export {
  hardenerInClears,
  poursOf,
  type AddedPour,
  type CupChoice,
  type Pour,
  type Pours,
  type PoursInput,
} from './pours';
export { planBatch, type BatchPlan } from './batchPlan';
export { coatsForCover, coverAfter, flakeDepthOf, flakeSizesOf } from './coverCount';
