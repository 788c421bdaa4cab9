export { sayInstrument, type InstrumentAnswer, type InstrumentFault } from './instrument';
export {
  LINE_FORMS,
  lineCutter,
  readScaleLine,
  sayScaleFault,
  weigher,
  type LineForm,
  type ScaleFault,
  type ScaleLine,
  type Weighed,
} from './scaleLines';
export {
  goOnFrom,
  isOnScale,
  meantNow,
  nextPart,
  pouredWithin,
  startPour,
  weigh,
  type OnScale,
  type PourPhase,
  type PourStands,
  type ScalePart,
} from './pour';
export { createScale, later, shows, type Held, type SimulatedScale } from './simulatedScale';
export { deviceSeed, readClimateLine, simulatedClimate, type Climate, type ClimateLine } from './climate';
export { sortBurst, type Sorted } from './keys';
