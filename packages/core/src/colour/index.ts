export {
  flatSpectrum,
  spectrumFrom,
  interpolateTable,
  WAVELENGTHS_NM,
  WAVELENGTH_COUNT,
  type Spectrum,
} from './spectrum';
export {
  reflectanceToXyz,
  whitePoint,
  weightsOf,
  D65_10,
  ILLUMINANTS,
  OBSERVERS,
  type Illuminant,
  type Observer,
  type Viewing,
  type Xyz,
} from './tristimulus';
export { labOf, xyzToLab, labToXyz, reflectanceToLab, labToLch, type Lab, type Lch } from './lab';
export { de76, de94, de2000, deCmc, DIFFERENCE_FORMULAS, type DifferenceFormula } from './difference';
export { metamerismIndex } from './metamerism';
export {
  exposureFor,
  labToScreen,
  linearOfByte,
  photoLab,
  PHOTO_DOUBT,
  xyzToLinearSrgb,
  xyzToScreen,
  type ScreenColour,
} from './screen';
export { ALL_WAVELENGTHS, FEW_WAVELENGTHS, fewWeights, type FewWeights } from './fewWavelengths';
export { flopIndex } from './flopIndex';
export { spectrumFromLab } from './spectrumFromLab';
