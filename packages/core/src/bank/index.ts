export {
  bankIndex,
  largestDifference,
  nearestByScan,
  nearestReadings,
  sharedAngles,
  sharedNeeded,
  type AngleLab,
  type BankIndex,
  type BankReading,
  type Near,
} from './nearest';
export { differenceAlong, nearestFinishes, type NearestFinish, type ReadRung } from './nearestFinish';
