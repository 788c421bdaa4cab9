export { CAUSES, FAULTS, findFault, searchFaults, type CauseId, type Fault, type FaultCause } from './table';
export { tooFastReducers } from './reducers';
export { evidenceOf, rankCauses, type Evidence, type FaultRecord, type RankedCause } from './rank';
export { FAULT_WAYS, type FaultStep, type FaultWay } from './ways';
