export { createRandom, normal } from './random';
