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
  type CellRef,
  type EventKind,
  type JobEvent,
  type Laid,
  type Look,
} from './events';
export { lookAfter, BAKE_MINUTES, sayCheck, STANDING, usualLook, type Check, type CheckKind } from './checks';
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
export { BEFORE_CLEAR, planJob, jobLayers, waitBetween, type CoatRow, type JobPlan, type JobPlanInput } from './plan';
export {
  coatsOn,
  coatsAt,
  foundOn,
  jobState,
  laidOf,
  namedOf,
  solidsOn,
  type AreaOn,
  type CellState,
  type CheckState,
  type JobState,
  type LayerOn,
  type Step,
} from './state';
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
export { enoughTold, extraTold, namesOf, nextCoatTold, type Told } from './tell';
export { effectOn, type EffectOn } from './effect';
