export {
  calibrateHand,
  DEFAULT_PRIOR,
  HAND_PARAMETERS,
  knownHandOf,
  MISREAD_LIMIT,
  priorFromCards,
  readingNoise,
  type Calibration,
  type HandParameter,
  type HandPrior,
  type KnownHand,
  type RungReading,
} from './calibrate';
export { assessLadder, filmFactor, type Assessment, type AssessOptions } from './assess';
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
} from './eye';
export { judgeStudy, runStudy, LOOK_SD, type StudyFigures } from './study';
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
} from './live';
