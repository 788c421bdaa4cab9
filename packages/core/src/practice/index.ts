export {
  createSheet,
  gunAt,
  landingRate,
  layAll,
  laySegment,
  union,
  type GunSample,
  type Patch,
  type PracticeGun,
  type Sheet,
} from './deposit';
export { armRows, ownWay, samplesEvery, samplesOf, type ArmSettings, type Panels } from './arm';
export { handOfPasses, passesOf, speedAlong, type PassRow, type PractisedHand } from './passRows';
export { faultOf, figuresOf, lessonSheet, reviewCoat, type CoatReview } from './figures';
export { firstHabit, HABITS, type Habit, type HabitId } from './habit';
export { lessonOf, LESSON_IDS, LESSONS, widthOf, type CoatFigures, type Lesson, type LessonId } from './lessons';
export { adviseCount, countOutcome, drawCount, type CountOutcome, type CountRound } from './count';
export { DRILL_KINDS, drillOf, isRight, type Drill, type DrillKind } from './drills';
