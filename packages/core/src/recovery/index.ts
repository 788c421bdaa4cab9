export {
  amountThere,
  anewChances,
  firstStopOf,
  lookedAtChances,
  mendedChances,
  repairChances,
  wantedAnew,
} from './chances';
export { planFaded, type FadedAsk, type FadedPlan } from './faded';
export {
  coatSteps,
  costOf,
  mendLayers,
  mendTold,
  momentOf,
  stepsOfFault,
  type MendCost,
  type MendLayers,
  type Moment,
} from './steps';
export { waysOut } from './ways';
export { spotReaches } from './reGround';
export { type WayOut, type WaysAsk } from './wayOut';
