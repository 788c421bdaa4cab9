export { fitStrength } from './fitStrength';
export { scoreMatch, type TargetAngle, type MatchScore } from './target';
export { filmFactor, ladderLabs, factorsToLabs, effectCoats, type EffectCoats } from './ladder';
export { findStopWindow, coatGrid, interpolateLabs, COAT_GRID, type StopWindow, type CurvePoint } from './stopWindow';
export { chancesAt, logScatter, DEFAULT_SCATTER, type Scatter } from './risk';
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
} from './matchMap';
export {
  canSweep,
  LEAST_STRENGTH,
  MOST_STRENGTH,
  sharesAt,
  sweepStrengths,
  SWEPT_STRENGTHS,
  sweptRows,
  type StrengthSweep,
} from './strengthSweep';
export { recipeFigures, USUAL_TRANSFER, type RecipeFigures } from './figures';
export { lookUnder, targetUnder, type SecondLook } from './light';
export {
  createSearch,
  rateExactly,
  paretoRecipes,
  USUAL_SEARCH,
  type RatedRecipe,
  type SearchInput,
  type SearchSpace,
} from './search';
export { nudge, weakerBy, type Nudge, type NudgeInput, type NudgeStep, type TonerDose } from './nudge';
export { remarkToLabs, type Remark } from './remark';
export { DROP_ML, nudgePours, tonerParts, type NudgePour } from './nudgePours';
export { describeDifference, type DifferenceWords } from './words';
