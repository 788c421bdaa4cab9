import type { Lab } from '../colour/lab';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import type { Viewing } from '../colour/tristimulus';
import { D65_10 } from '../colour/tristimulus';
import { factorsToLabs } from '../matching/ladder';
import { createRandom } from '../numeric/random';
import { readFlake } from '../optics/flakeOptics';
import { fresnel } from '../optics/fresnel';
import type { Geometry } from '../optics/geometry';
import { type TracedFlakes, type Vector, anyDirection, meanCrossing, meetFlake } from './meetFlake';

/**
 * A layer of a traced film: depths at normal incidence. Nothing of the film model's closed forms is used here: light is followed
 * ray by ray, so that the study's truth errs in other ways than the fit.
 */
export interface TracedLayer {
  /** Napierian dye depth, 31 values. */
  readonly dye: Float64Array;
  /** Pigment: volume absorption and isotropic scattering depth, 31 values each; null without. */
  readonly pigment: { readonly k: Float64Array; readonly s: Float64Array } | null;
  /** Kinds that lie among one another. */
  readonly flakes: readonly TracedFlakes[];
}

export interface TracedFilm {
  /** Index of the binder. */
  readonly n: number;
  /** Internal albedo of the ground, 31 values. */
  readonly albedo: Float64Array;
  /** Ground side first. */
  readonly layers: readonly TracedLayer[];
}

/** Straight-through loss of a view, per unit layer depth, by wavelength. */
function lossOf(layer: TracedLayer, cosine: number): Float64Array {
  const rates = layer.flakes.map((f) => meanCrossing(f.tilts, cosine) / meanCrossing(f.tilts, 1));
  return Float64Array.from({ length: WAVELENGTH_COUNT }, (_, i) => {
    const met = layer.flakes.reduce((sum, f, m) => {
      const t = readFlake(f.table, f.table.t, i, Math.max(0.4, cosine));
      return sum + f.tau * rates[m]! * (1 - (1 - f.edge) * t);
    }, 0);
    return (met + layer.dye[i]! + (layer.pigment ? layer.pigment.k[i]! + layer.pigment.s[i]! : 0)) / cosine;
  });
}

/**
 * Radiance factors of a film by following rays, [geometry * 31 + wavelength]; the gloss of the film itself is left out.
 * Every ray carries all wavelengths; at every flake, ground and pigment event what goes to each view is added.
 * @param seed the same seed takes the same random numbers. @param rays per lamp
 */
export function traceFilm(film: TracedFilm, geometries: readonly Geometry[], rays: number, seed: number): Float64Array {
  const out = new Float64Array(geometries.length * WAVELENGTH_COUNT);
  const lamps = [...new Set(geometries.map((g) => g.incidence))];
  for (const lamp of lamps) {
    const own = geometries.flatMap((g, index) => (g.incidence === lamp ? [{ g, index }] : []));
    traceLamp(film, lamp, own, rays, seed, out);
  }
  return out;
}

function traceLamp(
  film: TracedFilm,
  incidence: number,
  views: readonly { readonly g: Geometry; readonly index: number }[],
  rays: number,
  seed: number,
  out: Float64Array,
): void {
  const { n, layers, albedo } = film;
  const random = createRandom(seed);
  const rad = Math.PI / 180;
  const sinIn = Math.sin(incidence * rad) / n;
  const start: Vector = [sinIn, 0, -Math.sqrt(1 - sinIn * sinIn)];
  const seen = views.map(({ g, index }) => {
    // The view on the mirror side travels the way the lamp does.
    const angle = (incidence - g.aspecular) * rad;
    const sine = Math.sin(angle) / n;
    const cosine = Math.sqrt(1 - sine * sine);
    const through = (c: number) => 1 - fresnel(1, n, c).r;
    const scale = (Math.PI * through(Math.cos(incidence * rad)) * through(Math.cos(angle))) / (n * n * cosine);
    const losses = layers.map((l) => lossOf(l, cosine));
    // Loss from the bottom of each layer to the surface.
    const above = layers.map((_, k) => {
      const sum = new Float64Array(WAVELENGTH_COUNT);
      for (let j = k + 1; j < layers.length; j++) for (let i = 0; i < WAVELENGTH_COUNT; i++) sum[i]! += losses[j]![i]!;
      return sum;
    });
    return { index, direction: [sine, 0, cosine] as Vector, cosine, scale: scale / rays, losses, above };
  });
  // Candidates of every kind per unit depth, and all of them.
  const ofKind = layers.map((l) => l.flakes.map((f) => f.tau / meanCrossing(f.tilts, 1)));
  const ofFlakes = ofKind.map((kinds) => kinds.reduce((sum, v) => sum + v, 0));
  const mostScatter = layers.map((l) => (l.pigment ? l.pigment.s.reduce((m, v) => Math.max(m, v), 0) : 0));
  const w = new Float64Array(WAVELENGTH_COUNT);
  const r = new Float64Array(WAVELENGTH_COUNT);
  const t = new Float64Array(WAVELENGTH_COUNT);

  /** Adds what leaves an event toward every view: `strength` per steradian by view, times `by` wavelength. */
  const send = (
    layer: number,
    depth: number,
    strength: (v: (typeof seen)[number]) => number,
    by: ArrayLike<number> | null,
  ) => {
    for (const v of seen) {
      const s = strength(v);
      if (s <= 0) continue;
      const at = v.index * WAVELENGTH_COUNT;
      const here = layer < 0 ? null : v.losses[layer]!;
      const above = layer < 0 ? null : v.above[layer]!;
      for (let i = 0; i < WAVELENGTH_COUNT; i++) {
        const lost = layer < 0 ? bottom(v, i) : here![i]! * (1 - depth) + above![i]!;
        out[at + i]! += w[i]! * (by ? by[i]! : 1) * s * v.scale * Math.exp(-lost);
      }
    }
  };
  const bottom = (v: (typeof seen)[number], i: number): number =>
    layers.length ? v.losses[0]![i]! + v.above[0]![i]! : 0;
  const bright = () => w.reduce((m, v) => Math.max(m, v), 0);

  for (let ray = 0; ray < rays; ray++) {
    w.fill(1);
    let d: Vector = start;
    let layer = layers.length - 1;
    let depth = 1;
    // Depths of first events are spread evenly, so that few rays do.
    let even = (ray + random()) / rays;
    for (let events = 0; events < 400; events++) {
      // Down to the ground or up to the surface, through what scatters.
      const up = d[2] > 0;
      const cosine = Math.abs(d[2]);
      if (layer < 0 || (layer === 0 && !up && depth <= 0)) {
        // The ground: Lambertian.
        for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= albedo[i]!;
        send(-1, 0, (v) => v.cosine / Math.PI, null);
        if (bright() < 0.02) {
          if (random() < 0.5) break;
          for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= 2;
        }
        const z = Math.sqrt(random());
        const phi = 2 * Math.PI * random();
        const s = Math.sqrt(1 - z * z);
        d = [s * Math.cos(phi), s * Math.sin(phi), z];
        layer = 0;
        depth = 0;
        if (layers.length) continue;
        layer = 0;
        depth = 1;
        // No layers at all: straight to the surface.
      } else {
        const l = layers[layer]!;
        const candidates = (ofFlakes[layer]! + mostScatter[layer]!) / cosine;
        const u = even >= 0 ? even : random();
        even = -1;
        const run = candidates > 0 ? -Math.log(1 - u) / candidates : Infinity;
        const room = up ? 1 - depth : depth;
        const go = Math.min(run, room);
        const k = l.pigment?.k;
        for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= Math.exp((-(l.dye[i]! + (k ? k[i]! : 0)) * go) / cosine);
        depth += up ? go : -go;
        if (run < room) {
          const which = random() * (ofFlakes[layer]! + mostScatter[layer]!);
          if (which < mostScatter[layer]!) {
            // Pigment: scatters isotropically or lets pass, by its share of the densest wavelength.
            let [total, scattered] = [1e-12, 0];
            for (let i = 0; i < WAVELENGTH_COUNT; i++) {
              total += w[i]!;
              scattered += (w[i]! * l.pigment!.s[i]!) / mostScatter[layer]!;
            }
            const share = scattered / total;
            const scatters = random() < share;
            for (let i = 0; i < WAVELENGTH_COUNT; i++) {
              const p = l.pigment!.s[i]! / mostScatter[layer]!;
              w[i]! *= scatters ? p / share : (1 - p) / (1 - share);
            }
            if (scatters) {
              send(layer, depth, () => 1 / (4 * Math.PI), null);
              d = anyDirection(random);
            }
          } else {
            let left = which - mostScatter[layer]!;
            const kinds = ofKind[layer]!;
            let m = 0;
            while (m < kinds.length - 1 && left >= kinds[m]!) left -= kinds[m++]!;
            d = meetFlake(l.flakes[m]!, layer, depth, d, w, r, t, random, send);
          }
          if (bright() < 0.02) {
            if (random() < 0.5) break;
            for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= 2;
          }
          continue;
        }
        if (!up) {
          layer--;
          depth = layer >= 0 ? 1 : 0;
          continue;
        }
        if (layer < layers.length - 1) {
          layer++;
          depth = 0;
          continue;
        }
      }
      // The surface from inside.
      const sine2 = n * n * (1 - d[2] * d[2]);
      const back = sine2 >= 1 ? 1 : fresnel(n, 1, d[2]).r;
      if (back < 1 && random() >= Math.max(back, 0.1)) break;
      const kept = back < 1 ? back / Math.max(back, 0.1) : 1;
      for (let i = 0; i < WAVELENGTH_COUNT; i++) w[i]! *= kept;
      d = [d[0], d[1], -d[2]];
      layer = layers.length - 1;
      depth = 1;
    }
  }
}

/** Colours of a traced film. */
export const tracedLabs = (
  film: TracedFilm,
  geometries: readonly Geometry[],
  rays: number,
  seed: number,
  viewing: Viewing = D65_10,
): Lab[] => factorsToLabs(traceFilm(film, geometries, rays, seed), viewing);
