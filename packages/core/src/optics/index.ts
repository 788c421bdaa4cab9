export {
  evenTable,
  sampleGeometries,
  sampleTable,
  targetTable,
  tiltOf,
  aspecularOf,
  EVEN,
  LARGEST_INCIDENCE,
  LARGEST_TILT,
} from './sampleTable';
export { fresnel, interfaceReflectance, diffuseInterface } from './fresnel';
export { thinFilmPower, type FilmLayer as ThinFilmLayer } from './thinFilm';
export { kubelkaMunkOver, kubelkaMunkInfinite } from './kubelkaMunk';
export { internalToMeasured, measuredToInternal } from './saunderson';
export { createFilm, type Film } from './film';
export { FIVE_ANGLES, enterFilm, type Geometry } from './geometry';
export { type FlakeOptics, type SpectralLayer, type SpectrumOrNumber } from './flakeOptics';
export {
  prepareCoat,
  adjustCoat,
  thickenFlakes,
  type Coat,
  type Flakes,
  type Pigment,
  flakeDepth,
  strengthenCoat,
  type PreparedCoat,
} from './coat';
export { createOptics, type Optics } from './optics';
export { evaluateReference, createFastModel, type FastModel, type SlabCache } from './stack';
export {
  coatsOver,
  coatsToHide,
  contrastOfCoats,
  contrastRatio,
  HIDDEN_FROM,
  hidingCoat,
  showsThrough,
  type HidingCoat,
} from './hiding';
export { existingFinish } from './existingFinish';
export { sparkleIndex } from './sparkle';
export { type Ground, type PreparedGround } from './preparedGround';
