export { formulate, formulateAll, type FormulateStep } from './formulate';
export { paretoPourables, PART_STEP, pourables, type Pourable, type PouredPart } from './pourable';
export { type Formula, type FormulateInput, type Rated, type Shelf } from './shelf';
