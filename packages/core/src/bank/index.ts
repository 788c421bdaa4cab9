export {
  bankIndex,
  betweenLabs,
  nearestByScan,
  nearestFinishes,
  nearestReadings,
  sharedNeeded,
  type AngleLab,
  type BankIndex,
  type BankReading,
  type Near,
  type NearestFinish,
} from './nearest';
