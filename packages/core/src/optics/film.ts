import { diffuseInterface, fresnel } from './fresnel';

/**
 * Constants of a film of index n that hold for every coat in it. Classes of diffuse light: C inside the escape cone,
 * T trapped. See docs/optics.md.
 */
export interface Film {
  readonly n: number;
  /** Cosine of the critical angle. */
  readonly muC: number;
  /** Share of a Lambertian flux in class C. */
  readonly fC: number;
  readonly fT: number;
  /** Share of an isotropic emission in class C. */
  readonly qC: number;
  readonly qT: number;
  /** Mean 1/cosine of class C, and of class T for pigment. */
  readonly mC: number;
  readonly mT0: number;
  /** Mean internal Fresnel reflectance of class C. */
  readonly rC: number;
  /** Internal reflectance of diffuse light (Saunderson k2). */
  readonly internal: number;
  /** Mean 1/cosine of class T for dye, by the dye depth of the whole stack (napierian). */
  readonly mT: (totalDye: number) => number;
}

const TABLE_MAX = 16;
const TABLE_STEPS = 320;

function trappedPathTable(muC: number, fT: number): Float64Array {
  const table = new Float64Array(TABLE_STEPS + 1);
  table[0] = (2 * muC) / fT;
  const steps = 400;
  for (let j = 1; j <= TABLE_STEPS; j++) {
    const a = (j * TABLE_MAX) / TABLE_STEPS;
    // exp(-2a/muC) is taken out so that deep dye does not underflow.
    let sum = 0;
    for (let i = 0; i < steps; i++) {
      const t = (i + 0.5) / steps;
      const mu = muC * (1 - t * t);
      sum += mu > 0 ? 2 * mu * Math.exp(-2 * a * (1 / mu - 1 / muC)) * muC * 2 * t : 0;
    }
    table[j] = 1 / muC - Math.log(sum / steps / fT) / (2 * a);
  }
  return table;
}

/** Prepares the constants of a film index. @param n index of binder and clear, above 1 (1.5 unless known). */
export function createFilm(n = 1.5): Film {
  const fC = 1 / (n * n);
  const fT = 1 - fC;
  const muC = Math.sqrt(1 - fC);
  const { internal } = diffuseInterface(n);
  const table = trappedPathTable(muC, fT);
  const mT = (totalDye: number): number => {
    const p = (Math.max(0, totalDye) * TABLE_STEPS) / TABLE_MAX;
    if (p >= TABLE_STEPS) return table[TABLE_STEPS]!;
    const i = Math.floor(p);
    return table[i]! + (p - i) * (table[i + 1]! - table[i]!);
  };
  return {
    n,
    muC,
    fC,
    fT,
    qC: 1 - muC,
    qT: muC,
    mC: 2 / (1 + muC),
    mT0: 2 / muC,
    rC: (internal - fT) / fC,
    internal,
    mT,
  };
}

/** Internal Fresnel reflectance at a cosine inside the film; 1 beyond the critical angle. */
export function internalReflectance(film: Film, cosine: number): number {
  return cosine <= film.muC ? 1 : fresnel(film.n, 1, cosine).r;
}
