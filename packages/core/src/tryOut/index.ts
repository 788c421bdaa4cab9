export { filmAt, setUpFactor, type Place } from './film';
export { drawHidden, hiddenSight, RAYS, type Hidden, type Picked, type Sight } from './hidden';
export { simulatedRead, type HeldOn } from './instrument';
export {
  CURTAIN_PARTS,
  liftCurtain,
  traceCurtain,
  type Curtain,
  type CurtainAsk,
  type End,
  type Ended,
} from './curtain';
