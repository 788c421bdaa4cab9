export { traceFilm, tracedLabs, type TracedFilm, type TracedLayer } from './rays';
export { drawForeign, sightOf, type ForeignTruth } from './foreign';
export { CORE_KINDS, foreignWorld, KINDS, KNOTS, LAST_KNOT, ownWorld, type Kind, type World } from './world';
export {
  bestOf,
  SCATTER,
  shareOf,
  studyPainter,
  trueWindow,
  type JobEnd,
  type PainterFigures,
  type StudyOptions,
} from './run';
export { studyRepairs, type Repair } from './repairs';
