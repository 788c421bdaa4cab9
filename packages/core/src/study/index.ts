export { traceFilm, tracedLabs, type TracedFilm, type TracedLayer } from './rays';
export { CORE_KINDS, foreignWorld, KINDS, ownWorld, type Kind, type World } from './world';
export { shareOf, studyPainter, type JobEnd, type PainterFigures, type StudyOptions } from './run';
export { studyRepairs, type Repair } from './repairs';
