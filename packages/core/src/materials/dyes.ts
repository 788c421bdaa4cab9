import { CoreError } from '../errors';
import { spectrumFrom } from '../colour/spectrum';

/** A transparent colorant: napierian optical depth spectrum of one nominal full coat at strength 1. */
export interface Dye {
  readonly id: string;
  readonly name: string;
  readonly depth: Float64Array;
  readonly note: string;
}

/** Sum of Gaussian absorption bands [centre nm, width nm, depth], over a base depth. */
function bands(list: readonly (readonly [number, number, number])[], base = 0.005): Float64Array {
  return spectrumFrom((nm) =>
    list.reduce((sum, [centre, width, depth]) => sum + depth * Math.exp(-(((nm - centre) / width) ** 2)), base),
  );
}

const dye = (id: string, name: string, list: readonly (readonly [number, number, number])[], base?: number): Dye => ({
  id,
  name,
  depth: bands(list, base),
  note: 'Absorption bands invented for the demo.',
});

/** Candy and toner dyes. All absorption spectra are invented for the demo. */
export const DYES: readonly Dye[] = [
  dye('cinder-red', 'Cinder red', [
    [520, 48, 0.42],
    [430, 60, 0.3],
  ]),
  dye('ember-orange', 'Ember orange', [
    [455, 62, 0.46],
    [510, 35, 0.12],
  ]),
  dye('marsh-gold', 'Marsh gold', [[420, 55, 0.4]]),
  // Warm metallic tints: what transparent oxides do among aluminium, from memory.
  dye('gilt-gold', 'Gilt gold', [
    [430, 65, 0.42],
    [505, 40, 0.14],
  ]),
  dye('penny-copper', 'Penny copper', [
    [448, 75, 0.5],
    [536, 44, 0.21],
  ]),
  dye('reed-green', 'Reed green', [
    [425, 50, 0.34],
    [655, 55, 0.34],
  ]),
  dye('lagoon-blue', 'Lagoon blue', [
    [610, 70, 0.36],
    [680, 45, 0.16],
  ]),
  dye('midnight-blue', 'Midnight blue', [
    [585, 75, 0.5],
    [680, 60, 0.3],
    [420, 25, 0.05],
  ]),
  dye('plum-violet', 'Plum violet', [
    [555, 55, 0.44],
    [600, 40, 0.14],
  ]),
  dye('rosehip-magenta', 'Rosehip magenta', [[535, 42, 0.44]]),
  dye('peat-brown', 'Peat brown', [
    [430, 90, 0.36],
    [540, 90, 0.2],
    [650, 90, 0.09],
  ]),
  dye('smoke-black', 'Smoke black', [[550, 240, 0.28]], 0.04),
];

/** Depth spectrum of a dye, one nominal coat. @throws CoreError `notFound` */
export function dyeDepth(id: string, dyes: readonly Dye[] = DYES): Float64Array {
  const found = dyes.find((d) => d.id === id);
  if (!found) throw new CoreError('notFound', `There is no dye called ${id}.`);
  return found.depth;
}
