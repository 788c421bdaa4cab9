export { blendSeen, type BlendAnswer, type BlendAsk } from './blendSeen';
export { controlShift, effectFilm, effectLadder, groundLadder, lookAt, type LookLadder } from './effectLadder';
export { layerColours, layerLooks, looksKey, opticalStack, stackLook } from './layerLooks';
export { coatsOfMix, type Mix } from './mixCoats';
export { probeLook, type ProbeLook } from './probeLook';
export { sampleSeen, type SampleLook } from './sampleSeen';
export { stripesReach, stripesSeen, type StripesLook } from './stripes';
export { swatchFactors, type SwatchLayer } from './swatch';
export {
  dyeLook,
  groundColours,
  patchLooks,
  pigmentLook,
  sectionColours,
  SWATCH_ANGLE,
  type PatchLook,
  type SectionColours,
} from './swatches';
