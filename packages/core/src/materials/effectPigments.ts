import { CoreError } from '../errors';
import type { FlakeOptics } from '../optics/flakeOptics';
import { DYES } from './dyes';
import { OPTICAL_CONSTANTS as C } from './opticalConstants';

export type PigmentKind = 'interference' | 'glass' | 'iron-oxide' | 'spacer' | 'aluminium' | 'foil';

/** A flake pigment with its optics and usual lie in the film. */
export interface EffectPigment {
  readonly id: string;
  readonly name: string;
  readonly kind: PigmentKind;
  readonly optics: FlakeOptics;
  /** Median flake diameter, um. */
  readonly sizeUm: number;
  /** Flake thickness, um, and density, g/cm3: they set the cover a gram gives. */
  readonly thicknessUm: number;
  readonly densityGPerCm3: number;
  /** Rms tilt per axis laid medium wet, degrees, and edge share. Common practice (no source). */
  readonly tilt: number;
  readonly edge: number;
  readonly source: string;
}

/** Titania film on mica; thickness by interference order, n d = lambda/2 at the colour that is missing. */
export function interference(id: string, name: string, filmNm: number, sizeUm = 20): EffectPigment {
  const fine = sizeUm < 20;
  return {
    id,
    name,
    kind: 'interference',
    optics: {
      kind: 'thinFilm',
      layers: [{ n: C.anatase.n, k: C.anatase.k, nm: filmNm }],
      exit: { n: C.mica.n, k: 0 },
      twoSided: true,
    },
    sizeUm,
    thicknessUm: 0.5,
    densityGPerCm3: 3.1,
    tilt: fine ? 11 : 8.5,
    edge: fine ? 0.12 : 0.06,
    source: `Titania ${filmNm} nm on mica; ${C.anatase.source}`,
  };
}

/** Iron oxide film on mica. */
export function ironOxide(id: string, name: string, filmNm: number): EffectPigment {
  return {
    id,
    name,
    kind: 'iron-oxide',
    optics: {
      kind: 'thinFilm',
      layers: [{ n: C.hematite.n, k: C.hematite.k, nm: filmNm }],
      exit: { n: C.mica.n, k: 0 },
      twoSided: true,
    },
    sizeUm: 22,
    thicknessUm: 0.5,
    densityGPerCm3: 3.4,
    tilt: 9,
    edge: 0.08,
    source: `Iron oxide ${filmNm} nm on mica; ${C.hematite.source}`,
  };
}

/** Chromium, spacer of magnesium fluoride, opaque aluminium. */
export function colourShift(id: string, name: string, spacerNm: number): EffectPigment {
  return {
    id,
    name,
    kind: 'spacer',
    optics: {
      kind: 'thinFilm',
      layers: [
        { n: C.chromium.n, k: C.chromium.k, nm: 6 },
        { n: C.magnesiumFluoride.n, k: 0, nm: spacerNm },
      ],
      exit: { n: C.aluminium.n, k: C.aluminium.k },
    },
    sizeUm: 20,
    thicknessUm: 1,
    densityGPerCm3: 2.7,
    tilt: 5,
    edge: 0.25,
    source: `Chromium 6 nm / magnesium fluoride ${spacerNm} nm / opaque aluminium; ${C.magnesiumFluoride.source}`,
  };
}

function aluminium(id: string, name: string, sizeUm: number, tilt: number, edge: number): EffectPigment {
  return {
    id,
    name,
    kind: 'aluminium',
    optics: { kind: 'thinFilm', layers: [], exit: { n: C.aluminium.n, k: C.aluminium.k } },
    sizeUm,
    thicknessUm: 0.3,
    densityGPerCm3: 2.7,
    tilt,
    edge,
    source: C.aluminium.source,
  };
}

/** Dyed lacquer over aluminium on polyester foil. Lacquer depths are invented for the demo. */
function metalFlake(id: string, name: string, sizeUm: number, dyeId: string | null, depth: number): EffectPigment {
  const lacquer = DYES.find((d) => d.id === dyeId);
  return {
    id,
    name,
    kind: 'foil',
    optics: {
      kind: 'lacquered',
      lacquerDepth: lacquer ? lacquer.depth.map((v) => v * depth) : 0.02,
      metal: { n: C.aluminium.n, k: C.aluminium.k },
    },
    sizeUm,
    // Half a mil of lacquered polyester, from memory.
    thicknessUm: 12.5,
    densityGPerCm3: 1.4,
    tilt: 7,
    edge: 0.02,
    source: `${C.aluminium.source}; lacquer invented for the demo`,
  };
}

/** The reference library of effect pigments; names are invented, structures are the usual ones of the trade. */
export const EFFECT_PIGMENTS: readonly EffectPigment[] = [
  interference('white-pearl-fine', 'White pearl, fine', 45, 12),
  interference('white-pearl-coarse', 'White pearl, coarse', 45, 30),
  interference('gold-pearl-fine', 'Gold pearl, fine', 82, 12),
  interference('gold-pearl-coarse', 'Gold pearl, coarse', 82, 30),
  interference('red-pearl-fine', 'Red pearl, fine', 100, 12),
  interference('red-pearl-coarse', 'Red pearl, coarse', 100, 30),
  interference('violet-pearl-fine', 'Violet pearl, fine', 113, 12),
  interference('violet-pearl-coarse', 'Violet pearl, coarse', 113, 30),
  interference('blue-pearl-fine', 'Blue pearl, fine', 132, 12),
  interference('blue-pearl-coarse', 'Blue pearl, coarse', 132, 30),
  interference('green-pearl-fine', 'Green pearl, fine', 158, 12),
  interference('green-pearl-coarse', 'Green pearl, coarse', 158, 30),
  {
    ...interference('glass-silver', 'Glass silver', 50, 60),
    kind: 'glass',
    optics: {
      kind: 'thinFilm',
      layers: [{ n: C.rutile.n, k: C.rutile.k, nm: 50 }],
      exit: { n: C.silica.n, k: 0 },
      twoSided: true,
    },
    thicknessUm: 1.2,
    densityGPerCm3: 2.6,
    tilt: 6,
    edge: 0.02,
    source: `Titania 50 nm on glass; ${C.rutile.source}`,
  },
  ironOxide('bronze-mica', 'Bronze mica', 32),
  ironOxide('copper-mica', 'Copper mica', 48),
  ironOxide('russet-mica', 'Russet mica', 66),
  colourShift('tideline-shift', 'Tideline shift', 330),
  colourShift('kelp-shift', 'Kelp shift', 390),
  colourShift('ember-shift', 'Ember shift', 460),
  aluminium('aluminium-fine', 'Aluminium, fine', 10, 8, 0.1),
  aluminium('aluminium-coarse', 'Aluminium, coarse', 28, 6, 0.05),
  metalFlake('silver-flake-100', 'Silver flake 0.1 mm', 100, null, 0),
  metalFlake('silver-flake-200', 'Silver flake 0.2 mm', 200, null, 0),
  metalFlake('gold-flake-100', 'Gold flake 0.1 mm', 100, 'marsh-gold', 1.6),
  metalFlake('gold-flake-200', 'Gold flake 0.2 mm', 200, 'marsh-gold', 1.6),
  metalFlake('gold-flake-400', 'Gold flake 0.4 mm', 400, 'marsh-gold', 1.6),
  metalFlake('red-flake-400', 'Red flake 0.4 mm', 400, 'cinder-red', 2.5),
  metalFlake('blue-flake-600', 'Blue flake 0.6 mm', 600, 'lagoon-blue', 2.5),
];

/** @throws CoreError `notFound` */
export function findPigment(id: string, pigments: readonly EffectPigment[] = EFFECT_PIGMENTS): EffectPigment {
  const found = pigments.find((p) => p.id === id);
  if (!found) throw new CoreError('notFound', `There is no effect pigment called ${id}.`);
  return found;
}
