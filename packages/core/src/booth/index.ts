export {
  bestOrder,
  orderCost,
  oversprayOn,
  OVERSPRAY_SEEN,
  worstOverspray,
  EXACT_UP_TO,
  type BoothAir,
  type BoothArea,
} from './order';
export {
  keptGaps,
  planTimeline,
  type PlannedTask,
  type TimeBatch,
  type TimeConflict,
  type Timeline,
  type TimeTask,
} from './timeline';
