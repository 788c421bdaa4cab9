export { answerCard, cardCurve, fitWord, linesBest, type CardAnswer, type CardAsk, type FitWord } from './answer';
export {
  adviseAfter,
  adviseFirst,
  cardSd,
  firstChoices,
  nominalTable,
  predictedLabs,
  readCard,
  sayLooks,
  wantedAt,
  type Advised,
  type CardOptions,
  type CardSaid,
  type FitSaid,
} from './advise';
export { seekTarget, targetNoise, type TargetRead, type TargetSought } from './bestCount';
export { cardByEye, ladderOfAnyHand, withEye } from './byEye';
export { countByEye, faceAgainstFlop, outOfOrder, type EyePosterior } from './eye';
export type { EyeRead, PossibleLadder } from './eyeSight';
export { brighterFrom, differenceFrom } from './eyeSight';
export {
  isPeelWord,
  sayFrom,
  EYE_VIEWS,
  EYE_WORDS,
  HUE_WORDS,
  missingViews,
  viewsOf,
  PEEL_WORDS,
  USUAL_CUTS,
  VERDICTS,
  type EyeCuts,
  type EyeView,
  type HueWord,
  type LookedAt,
  type RungVerdict,
  type Verdict,
} from './eyeWords';
export { type CardReadings, type HandBelieved } from './fitProblem';
export { labsAt, LADDER_LAST, plainLadder, toLabs, type Ladder } from './fittedLadder';
export { believedFilm, handFromCards, knownHandOf, type KnownHand } from './hands';
export { HAND_PARAMETERS, type HandParameter } from './handParameters';
export { type LadderOf, type LadderTable } from './ladderTable';
export {
  isUnsure,
  liveAdvice,
  liveState,
  wordOfVerdicts,
  type LiveAdvice,
  type LiveState,
  type LookWord,
  type SpotLook,
  type SpotState,
  type SpotZone,
} from './live';
export { type Look, type LookSays } from './looks';
export { noiseAt, noiseOf, noiseOfSpots, type Noise, type RungReading, type SpotNoise } from './readings';
export { firstChances, nextAmount, TENTH, type Chances, type Wanted } from './rule';
export { shiftGround, type VariationId } from './variation';
export { countWindow, type CountWindow } from './window';
