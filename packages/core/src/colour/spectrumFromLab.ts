import { reflectanceToXyz, whitePoint, D65_10, type Viewing } from './tristimulus';
import { labToXyz, xyzToLab, type Lab } from './lab';
import { spectrumFrom } from './spectrum';
import { de76 } from './difference';

export interface MetamerResult {
  /** 31 reflectances, each inside 0..scale. One of many spectra with this colour. */
  readonly spectrum: Float64Array;
  /** CIE 1976 distance left between the spectrum's colour and the wanted one. */
  readonly residual: number;
  readonly status: 'converged' | 'stalled';
}

const sigmoid = (x: number): number => 0.5 + x / (2 * Math.sqrt(1 + x * x));

/** Reflectance of the three-coefficient model: a sigmoid of a quadratic in scaled wavelength, times `scale`. */
function sigmoidSpectrum(c: readonly number[], scale: number): Float64Array {
  return spectrumFrom((nm) => {
    const t = (nm - 550) / 150;
    return scale * sigmoid(c[0]! + t * (c[1]! + t * c[2]!));
  });
}

function solve3(m: number[][], v: number[]): number[] | null {
  const a = m.map((row, i) => [...row, v[i]!]);
  for (let i = 0; i < 3; i++) {
    let p = i;
    for (let r = i + 1; r < 3; r++) if (Math.abs(a[r]![i]!) > Math.abs(a[p]![i]!)) p = r;
    [a[i], a[p]] = [a[p]!, a[i]!];
    if (Math.abs(a[i]![i]!) < 1e-14) return null;
    for (let r = 0; r < 3; r++) {
      if (r === i) continue;
      const k = a[r]![i]! / a[i]![i]!;
      for (let c = i; c < 4; c++) a[r]![c]! -= k * a[i]![c]!;
    }
  }
  return a.map((row, i) => row[3]! / row[i]!);
}

/**
 * A smooth bounded spectrum that has a given CIELAB colour: sigmoid of a quadratic, solved by damped Gauss-Newton.
 * Bright metallic readings (Y above 100) are fitted with the sigmoid scaled up, so the bound scales with them.
 * It is one of many metamers; say so where it is shown. Source: Jakob and Hanika 2019.
 */
export function spectrumFromLab(lab: Lab, viewing: Viewing = D65_10): MetamerResult {
  const white = whitePoint(viewing);
  const y = labToXyz(lab, white)[1] / 100;
  const scale = Math.max(1, 1.15 * y);
  const start = Math.min(0.98, Math.max(0.02, y / scale));
  const x0 = (2 * start - 1) / (2 * Math.sqrt(start * (1 - start)));
  let c = [x0, 0, 0];
  const labOf = (k: readonly number[]): Lab => xyzToLab(reflectanceToXyz(sigmoidSpectrum(k, scale), viewing), white);
  let current = labOf(c);
  let residual = de76(current, lab);
  let damping = 1e-3;
  for (let i = 0; i < 200 && residual > 1e-7; i++) {
    const jac = [0, 1, 2].map((j) => {
      const h = 1e-6 * Math.max(1, Math.abs(c[j]!));
      const moved = labOf(c.map((v, k) => (k === j ? v + h : v)));
      return moved.map((v, k) => (v - current[k]!) / h);
    });
    const r = lab.map((v, k) => v - current[k]!);
    const jtj = [0, 1, 2].map((p) =>
      [0, 1, 2].map((q) => {
        const s = jac[p]!.reduce((t, v, k) => t + v * jac[q]![k]!, 0);
        return p === q ? s * (1 + damping) + 1e-12 : s;
      }),
    );
    const step = solve3(
      jtj,
      [0, 1, 2].map((p) => jac[p]!.reduce((t, v, k) => t + v * r[k]!, 0)),
    );
    if (!step) break;
    const next = c.map((v, k) => v + step[k]!);
    const nextLab = labOf(next);
    const nextResidual = de76(nextLab, lab);
    if (nextResidual < residual) {
      c = next;
      current = nextLab;
      residual = nextResidual;
      damping = Math.max(damping / 4, 1e-12);
    } else {
      damping *= 6;
      if (damping > 1e12) break;
    }
  }
  return {
    spectrum: sigmoidSpectrum(c, scale),
    residual,
    status: residual < 0.01 ? 'converged' : 'stalled',
  };
}
