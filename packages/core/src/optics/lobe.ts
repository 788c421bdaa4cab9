import { ALL_WAVELENGTHS } from '../colour/fewWavelengths';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { PreparedCoat } from './coat';
import { expNegative } from './expNegative';
import type { Optics } from './optics';
import { LOBE_NODES, tiltDensity, type SurfaceTables } from './surfaceTables';

const NODES = LOBE_NODES.length;

/**
 * Lobe part of the radiance factor: first order exactly, higher orders by two-flux slabs in the transverse-frequency
 * domain (film equations, sections 2 and 3).
 * @param coats ground side first; each is one homogeneous slab (equal coats may be merged through their factor).
 * @param base lobe factor of an existing finish below the coats, [geometry * 31 + wavelength], outside the film.
 * @param out receives [geometry * 31 + wavelength]. @param wavelengths places on the grid that are worked out
 */
export function writeLobe(
  optics: Optics,
  coats: readonly PreparedCoat[],
  tilt: number,
  tables: readonly SurfaceTables[],
  base: Float64Array | null,
  out: Float64Array,
  wavelengths: readonly number[] = ALL_WAVELENGTHS,
): void {
  const n = coats.length;
  // Kinds of flakes of all coats in one row; those of coat j are first[j] up to first[j + 1].
  const kinds = coats.flatMap((c) => c.flakes);
  const firstKind = new Int32Array(n + 1);
  for (let j = 0; j < n; j++) firstKind[j + 1] = firstKind[j]! + coats[j]!.flakes.length;
  const nodePower = new Float64Array(kinds.length * NODES);
  kinds.forEach((f, m) => {
    const ratio = (f.tilt / tilt) ** 2;
    for (let q = 0; q < NODES; q++) nodePower[m * NODES + q] = LOBE_NODES[q]! ** ratio;
  });
  const density = new Float64Array(kinds.length);
  const sigma = new Float64Array(kinds.length);
  const readings = kinds.map((f) => optics.readings(f.table));
  const h = new Float64Array(NODES);
  const h1 = new Float64Array(NODES);
  for (let g = 0; g < optics.geometries.length; g++) {
    const geo = optics.geometries[g]!;
    const table = tables[g]!;
    const scale = (Math.PI * geo.surface) / (4 * geo.cosIn * geo.cosView);
    const dIn = optics.dirIn[g]! * WAVELENGTH_COUNT;
    const dView = optics.dirView[g]! * WAVELENGTH_COUNT;
    kinds.forEach((f, m) => (density[m] = tiltDensity(geo.tiltNeeded, f.tilt)));
    for (const i of wavelengths) {
      const at = g * WAVELENGTH_COUNT + i;
      let first = base ? base[at]! / scale : 0;
      h.fill(0);
      h1.fill(0);
      for (let j = 0; j < n; j++) {
        const coat = coats[j]!;
        const f = coat.factor;
        const volume = f * (coat.a[i]! + coat.k[i]! + coat.s[i]!) * geo.path;
        const [from, to] = [firstKind[j]!, firstKind[j + 1]!];
        if (from === to) {
          const through = expNegative(2 * volume);
          first *= through;
          for (let q = 0; q < NODES; q++) {
            h[q]! *= through;
            h1[q]! *= through;
          }
          continue;
        }
        let alpha = volume;
        let mirrored = 0;
        for (let m = from; m < to; m++) {
          const { tau, edge } = kinds[m]!;
          const fl = readings[m]!;
          const tMean = (fl.tDir[dIn + i]! + fl.tDir[dView + i]!) / 2;
          alpha += tau * f * (1 - (1 - edge) * tMean);
          sigma[m] = tau * f * (1 - edge) * fl.rLobe[at]!;
          mirrored += sigma[m]! * density[m]!;
        }
        const through = expNegative(2 * alpha);
        const shade = alpha > 1e-9 ? (1 - through) / (2 * alpha) : 1;
        first = first * through + mirrored * shade;
        for (let q = 0; q < NODES; q++) {
          let sq = 0;
          for (let m = from; m < to; m++) sq += sigma[m]! * nodePower[m * NODES + q]!;
          const gamma = Math.sqrt(Math.max(0, alpha * alpha - sq * sq));
          const below = h[q]!;
          if (gamma < 1e-6) {
            const r = sq / (1 + alpha);
            const t = 1 / (1 + alpha);
            h[q] = r + (t * t * below) / (1 - r * below);
          } else {
            const e = expNegative(gamma);
            const e2 = e * e;
            const scaleR = 1 / (alpha * (1 - e2) + gamma * (1 + e2));
            const r = sq * (1 - e2) * scaleR;
            // Nothing lies below the first coat with flakes: its reflection is all there is.
            if (below === 0) h[q] = r;
            else {
              const t = 2 * gamma * e * scaleR;
              h[q] = r + (t * t * below) / (1 - r * below);
            }
          }
          h1[q] = h1[q]! * through + sq * shade;
        }
      }
      let higher = 0;
      for (let q = 0; q < NODES; q++) {
        const all = h[q]!;
        const one = h1[q]!;
        higher += table.weights[q]! * (all - one + table.rL * (all * all - one * one));
      }
      higher = Math.max(0, higher) / (tilt * tilt) + h1[0]! * h1[0]! * table.i2;
      out[at] = scale * (first + higher);
    }
  }
}
