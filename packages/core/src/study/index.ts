export { traceFilm, tracedLabs, type TracedFilm, type TracedLayer } from './rays';
export { drawForeign, sightOf, type ForeignTruth } from './foreign';
export { CORE_KINDS, foreignWorld, KINDS, KNOTS, LAST_KNOT, ownWorld, type Kind, type World } from './world';
export { shareOf, studyPainter, type StudyOptions } from './run';
export { bestOf, SCATTER, type JobEnd, type PainterFigures } from './painterFigures';
export { trueWindow } from './eyeRun';
export { studyRepairs, type Repair } from './repairs';
