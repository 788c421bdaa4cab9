export { filmAt, type Place } from './film';
export { drawHidden, hiddenSight, RAYS, TRY_OUT_FAMILIES, type Hidden, type Picked, type Sight } from './hidden';
export { simulatedRead, type HeldOn } from './instrument';
export { liftCurtain, type Curtain, type CurtainAsk, type End, type Ended } from './curtain';
