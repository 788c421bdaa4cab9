/** One layer of a thin film: complex index n - ik (k >= 0 absorbs) and thickness in nm. */
export interface FilmLayer {
  readonly n: number;
  readonly k: number;
  readonly nm: number;
}

export interface PolarisedPower {
  readonly r: number;
  readonly t: number;
  readonly rs: number;
  readonly rp: number;
  readonly ts: number;
  readonly tp: number;
}

type Complex = readonly [number, number];
const mul = (a: Complex, b: Complex): Complex => [a[0] * b[0] - a[1] * b[1], a[0] * b[1] + a[1] * b[0]];
const add = (a: Complex, b: Complex): Complex => [a[0] + b[0], a[1] + b[1]];
const sub = (a: Complex, b: Complex): Complex => [a[0] - b[0], a[1] - b[1]];
const div = (a: Complex, b: Complex): Complex => {
  const d = b[0] * b[0] + b[1] * b[1];
  return [(a[0] * b[0] + a[1] * b[1]) / d, (a[1] * b[0] - a[0] * b[1]) / d];
};
const abs2 = (a: Complex): number => a[0] * a[0] + a[1] * a[1];
/** Root with the sign of a decaying wave for the n - ik convention: imaginary part not positive. */
const root = (a: Complex): Complex => {
  const m = Math.hypot(a[0], a[1]);
  const re = Math.sqrt(Math.max(0, (m + a[0]) / 2));
  const im = Math.sqrt(Math.max(0, (m - a[0]) / 2));
  // Of the two roots keep the forward wave: for a lossless medium re > 0, for total reflection im < 0.
  return a[1] > 0 ? [-re, -im] : [re, -im];
};

interface Amplitude {
  readonly r: number;
  readonly t: number;
}

function onePolarisation(
  polarisation: 's' | 'p',
  n0: number,
  layers: readonly FilmLayer[],
  exit: { n: number; k: number },
  cosine: number,
  wavelengthNm: number,
): Amplitude {
  const transverse2 = n0 * n0 * (1 - cosine * cosine);
  const admittance = (n: Complex): { normal: Complex; eta: Complex } => {
    const n2 = mul(n, n);
    const normal = root(sub(n2, [transverse2, 0]));
    return { normal, eta: polarisation === 's' ? normal : div(n2, normal) };
  };
  const eta0: Complex = [polarisation === 's' ? n0 * cosine : n0 / cosine, 0];
  const end = admittance([exit.n, -exit.k]).eta;
  let b: Complex = [1, 0];
  let c: Complex = end;
  let scale = 0;
  for (let i = layers.length - 1; i >= 0; i--) {
    const layer = layers[i]!;
    if (layer.nm <= 0) continue;
    const { normal, eta } = admittance([layer.n, -layer.k]);
    const phase: Complex = [
      (2 * Math.PI * normal[0] * layer.nm) / wavelengthNm,
      (2 * Math.PI * normal[1] * layer.nm) / wavelengthNm,
    ];
    // cos and i sin of a complex phase, with the growing exponential e^|Im| taken out and kept in `scale`.
    const grow = Math.abs(phase[1]);
    const small = Math.exp(-2 * grow);
    const ch = (1 + small) / 2;
    const sh = (Math.sign(phase[1]) * (1 - small)) / 2;
    const cosPhase: Complex = [Math.cos(phase[0]) * ch, -Math.sin(phase[0]) * sh];
    const iSin: Complex = [-Math.cos(phase[0]) * sh, Math.sin(phase[0]) * ch];
    scale += grow;
    const nextB = add(mul(cosPhase, b), mul(div(iSin, eta), c));
    c = add(mul(mul(eta, iSin), b), mul(cosPhase, c));
    b = nextB;
  }
  const top = sub(mul(eta0, b), c);
  const bottom = add(mul(eta0, b), c);
  return {
    r: abs2(div(top, bottom)),
    t: ((4 * eta0[0] * end[0]) / abs2(bottom)) * Math.exp(-2 * scale),
  };
}

/**
 * Power reflectance and transmittance of a stack of thin layers by the characteristic matrix (Abeles 1950).
 * @param n0 real index in front. @param layers from the front. @param exit medium behind (n - ik).
 * @param cosine of the incidence in the front medium, 0..1 exclusive of 0. @param wavelengthNm vacuum wavelength, nm.
 * Transmittance is the power entering the exit medium.
 */
export function thinFilmPower(
  n0: number,
  layers: readonly FilmLayer[],
  exit: { n: number; k: number },
  cosine: number,
  wavelengthNm: number,
): PolarisedPower {
  const mu = Math.max(cosine, 1e-9);
  const s = onePolarisation('s', n0, layers, exit, mu, wavelengthNm);
  const p = onePolarisation('p', n0, layers, exit, mu, wavelengthNm);
  return { r: (s.r + p.r) / 2, t: (s.t + p.t) / 2, rs: s.r, rp: p.r, ts: s.t, tp: p.t };
}
