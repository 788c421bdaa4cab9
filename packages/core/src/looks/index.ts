export { layerLooks, opticalStack } from './layerLooks';
export { swatchFactors, type SwatchLayer } from './swatch';
