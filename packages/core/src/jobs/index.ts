export {
  objectsOf,
  sprayAreas,
  START_SETTINGS,
  type Cell,
  type CellEdit,
  type JobFinish,
  type JobLayer,
  type JobObject,
  type ObjectCount,
  type SprayArea,
  type SpraySettings,
} from './job';
export { ALL, NONE, reachFaults, reachM2, type Reach, type ReachRule } from './reach';
export {
  cellKey,
  ENOUGH,
  EVENT_KINDS,
  eventOf,
  inForce,
  LET_DOWN,
  plainEvent,
  PUT_RIGHT,
  SCUFFED,
  TOLD_APART_MS,
  type CellRef,
  type EventKind,
  type JobEvent,
  type Laid,
  type Look,
} from './events';
export { BAKE_MINUTES, STANDING, usualLook, type Check, type CheckKind } from './checks';
export { lookAfter, sayCheck } from './sayCheck';
export { isMend, mendCell } from './mend';
export {
  WAY_KINDS,
  WORK_KINDS,
  type Mend,
  type MendReach,
  type MendStep,
  type WayKind,
  type WorkKind,
} from './mendSteps';
export { planJob } from './plan';
export { BEFORE_CLEAR, jobLayers, waitBetween } from './laid';
export { type CoatRow, type JobPlan, type JobPlanInput } from './planTypes';
export { jobState } from './state';
export { coatsOn, coatsAt, foundOn, laidOf, namedOf, solidsOn } from './whatIsOn';
export { type AreaOn, type CellState, type CheckState, type JobState, type LayerOn, type Step } from './stateTypes';
export { looksOf, onThere, seenOf, unseenOf, type ReadSpot, type SeenSpot, type Unseen } from './evidence';
export { cupsOf, type Cup } from './amounts';
export { checkTask, jobTimeline, tasksDone, timeTasks, type JobTimeline } from './tasks';
export { sayList } from './list';
export { sayAreas, sayCell, sayCheckOf, sayEvent, sayOn, sayReach, sayStep } from './say';
export {
  doneOf,
  filmOf,
  fullCoatOf,
  planAgainstCard,
  runOf,
  workOfCard,
  workOfJob,
  type CardRow,
  type Done,
  type JobMixing,
  type JobRow,
  type JobWork,
  type RunState,
  type WorkInput,
} from './work';
export { START_AREAS, type AreaRow } from './areaRow';
export { shownStacks, stacksOfPick, type LayerFilm } from './stacks';
export { cellMl, groupsOf, LEFT_IN_GUN_ML, letDownMl } from './amounts';
export { enoughTold, extraTold, namesOf, nextCoatTold, undoTold, type Told } from './tell';
export { effectOn, type EffectOn } from './effect';
