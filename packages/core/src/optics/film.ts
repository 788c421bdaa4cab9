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
  /** Chance of light of long flake-surface chains to leave by a sine of the view, over its mean; see {@link chainSides}. */
  readonly chainSide: (sine: number, width: number) => number;
}

/** Sine toward which long flake-surface chains lean, on the side of the mirror. */
const CHAINS_LEAN_TO = 0.75;
/** Widths the mean over the escape disc is tabulated at, geometric. */
const [NARROWEST, WIDEST, WIDTHS] = [0.1, 4, 160] as const;

/** Points a side of the disc. */
const DISC = 32;

/**
 * A Gaussian in the sine plane around {@link CHAINS_LEAN_TO}, over its mean within the escape cone (film equations, section 5). The
 * mean is tabulated when it is first asked for.
 */
function chainSides(n: number): Film['chainSide'] {
  const rim = 1 / n;
  const step = Math.log(WIDEST / NARROWEST) / (WIDTHS - 1);
  const bell = (ux: number, uy: number, w: number) => Math.exp(-((ux - CHAINS_LEAN_TO) ** 2 + uy * uy) / (2 * w * w));
  const meanLog = (w: number): number => {
    let [total, cells] = [0, 0];
    for (let i = 0; i < DISC; i++)
      for (let j = 0; j < DISC; j++) {
        const ux = rim * ((2 * (i + 0.5)) / DISC - 1);
        const uy = rim * ((2 * (j + 0.5)) / DISC - 1);
        if (ux * ux + uy * uy > rim * rim) continue;
        total += bell(ux, uy, w);
        cells++;
      }
    return Math.log(total / cells);
  };
  let table: Float64Array | null = null;
  return (sine, width) => {
    table ??= Float64Array.from({ length: WIDTHS }, (_, k) => meanLog(NARROWEST * Math.exp(k * step)));
    const w = Math.min(WIDEST, Math.max(NARROWEST, width));
    const at = Math.min(WIDTHS - 1.001, Math.log(w / NARROWEST) / step);
    const k = Math.floor(at);
    const mean = table[k]! + (at - k) * (table[k + 1]! - table[k]!);
    return Math.exp(-((sine - CHAINS_LEAN_TO) ** 2) / (2 * w * w) - mean);
  };
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
    chainSide: chainSides(n),
  };
}

/** Internal Fresnel reflectance at a cosine inside the film; 1 beyond the critical angle. */
export function internalReflectance(film: Film, cosine: number): number {
  return cosine <= film.muC ? 1 : fresnel(film.n, 1, cosine).r;
}
