import { FEW_WAVELENGTHS, fewWeights } from '../colour/fewWavelengths';
import { labToXyz, xyzToLab } from '../colour/lab';
import { D65_10 } from '../colour/tristimulus';
import { boundedGaussNewton } from '../numeric/gaussNewton';
import type { MapGround } from '../optics/preparedGround';
import { createFastModel } from '../optics/stack';
import { createTables, DEPTHS, labOfFew, MOST_TAU, readDepths, seenOf, TAUS, type FilmTable } from './filmTable';
import { readingWeights } from '../colour/residuals';
import { filmMaker, type FormulateInput } from './shelf';

/** Shares of the first of two kinds that are tried, and coats that films are tabulated at. */
const SHARES = [0.25, 0.5, 0.75] as const;
const NOMINAL = 3;
/** Films of a ground that are brought nearer in three bands, those that dyes are looked for, and pairs of dyes tried of each. */
const [FITTED, DYED, PAIRS] = [70, 32, 5] as const;
const KNOTS = DEPTHS.length;
const MOST_DEPTH = 2 * DEPTHS[KNOTS - 1]!;
const LEAST_TAU = 0.02;

/** A mix that may be near: places on the shelf, and amounts over the whole film. */
export interface Candidate {
  readonly ground: MapGround;
  readonly pigments: readonly (readonly [number, number])[];
  readonly dyes: readonly (readonly [number, number])[];
  /** Weighted rms over the angles, about CIEDE2000. */
  readonly off: number;
}

/** One or two kinds of flakes, how deep in all, the first one's share, and the dye that would make it near by band. */
interface Film {
  readonly p: FilmTable;
  readonly q: FilmTable | null;
  readonly tau: number;
  readonly share: number;
  readonly needs: readonly number[];
  readonly off: number;
}

/** Amounts of none, one or two dyes, none below 0, that come nearest to what is needed in three bands, and what they leave. */
function coveredBy(of: readonly Float64Array[], needs: readonly number[]): { amounts: number[]; left: number } {
  const dot = (u: ArrayLike<number>, v: ArrayLike<number>) => u[0]! * v[0]! + u[1]! * v[1]! + u[2]! * v[2]!;
  const all = dot(needs, needs);
  const one = (u: Float64Array): [number, number] => {
    const x = Math.max(0, dot(u, needs) / Math.max(1e-12, dot(u, u)));
    return [x, all - 2 * x * dot(u, needs) + x * x * dot(u, u)];
  };
  const [u, v] = of;
  if (!u) return { amounts: [], left: all };
  const [x, without] = one(u);
  if (!v) return { amounts: [x], left: without };
  const [uu, uv, vv] = [dot(u, u), dot(u, v), dot(v, v)];
  const [un, vn] = [dot(u, needs), dot(v, needs)];
  const det = uu * vv - uv * uv;
  const [p, q] = det > 1e-9 * uu * vv ? [(un * vv - vn * uv) / det, (vn * uu - un * uv) / det] : [-1, -1];
  if (p >= 0 && q >= 0) return { amounts: [p, q], left: all - p * un - q * vn };
  const [y, other] = one(v);
  return without <= other ? { amounts: [x, 0], left: without } : { amounts: [0, y], left: other };
}

/**
 * Looks for mixes over one ground after the other: every kind of flakes is tabulated under a grey dye; every pair at a few depths
 * and shares, what could come near by a dye in three bands brought nearer in depth and share, the nearest of those dyed.
 * @returns for a ground its candidates, those left out that can't be nearer than `worth`
 */
export function createScreen(input: FormulateInput): (ground: MapGround, worth?: number) => Candidate[] {
  const { shelf, target, mostPigments, mostDyes } = input;
  const maker = filmMaker(input);
  const w = fewWeights(D65_10);
  const tables = createTables(createFastModel(input.model.optics, FEW_WAVELENGTHS), w, (place, tau, dye) =>
    maker(place < 0 ? [] : [[place, tau]], dye, NOMINAL),
  );
  const angles = target.length;
  const few = w.at.length;
  const weights = readingWeights(target);
  const places = mostPigments > 0 ? shelf.pigments.map((_, i) => i) : [];
  const logWanted = Float64Array.from(
    target.flatMap(({ lab: [l, a, b] }) => labToXyz([Math.max(0.2, l), a, b], w.white)),
    (v) => Math.log(Math.max(1e-3, v)),
  );

  const needs = new Float64Array(3);
  const mixed = new Float64Array(KNOTS * angles * 3);
  /** How near a film at a knot of depth could be dyed, by a depth in each band; the depths are left in `needs`. */
  const nearness = (p: readonly Float64Array[], q: readonly Float64Array[] | null, share: number): number => {
    const n = 3 * angles;
    for (let k = 0; k < KNOTS; k++)
      for (let i = 0; i < n; i++) {
        const one = p[k]![i]!;
        mixed[k * n + i] = Math.log(q ? share * one + (1 - share) * q[k]![i]! : one);
      }
    for (let c = 0; c < 3; c++) {
      let [sum, weight] = [0, 0];
      for (let g = 0; g < angles; g++) {
        const at = 3 * g + c;
        const t = logWanted[at]!;
        let k = 0;
        while (k < KNOTS - 2 && mixed[(k + 1) * n + at]! > t) k++;
        const from = mixed[k * n + at]!;
        const slope = (from - mixed[(k + 1) * n + at]!) / (DEPTHS[k + 1]! - DEPTHS[k]!);
        if (slope < 1e-4) continue;
        sum += slope * slope * (DEPTHS[k]! + (from - t) / slope);
        weight += slope * slope;
      }
      needs[c] = mostDyes && weight > 0 ? Math.min(DEPTHS[KNOTS - 1]!, Math.max(0, sum / weight)) : 0;
    }
    let off = 0;
    const seen: [number, number, number] = [0, 0, 0];
    for (let g = 0; g < angles; g++) {
      for (let c = 0; c < 3; c++) {
        const d = needs[c]!;
        let k = 0;
        while (k < KNOTS - 2 && DEPTHS[k + 1]! < d) k++;
        const f = (d - DEPTHS[k]!) / (DEPTHS[k + 1]! - DEPTHS[k]!);
        const at = k * n + 3 * g + c;
        seen[c] = Math.exp((1 - f) * mixed[at]! + f * mixed[at + n]!);
      }
      const lab = xyzToLab(seen, w.white);
      for (let c = 0; c < 3; c++) off += (weights[g]![c]! * (lab[c]! - target[g]!.lab[c]!)) ** 2;
    }
    return off;
  };

  const bandReading = { knots: new Int32Array(3), shares: new Float64Array(3) };
  const fewReading = { knots: new Int32Array(few), shares: new Float64Array(few) };
  const bandSeen = new Float64Array(3);
  const fewSeen = new Float64Array(few);
  /** Residuals of a film by depth of flakes, share, and what is read. */
  const residualsOf = (
    { p, q }: Pick<Film, 'p' | 'q'>,
    of: 'light' | 'bands',
    tau: number,
    share: number,
    depths: ArrayLike<number>,
  ): Float64Array => {
    const seen = of === 'bands' ? bandSeen : fewSeen;
    const reading = readDepths(depths, of === 'bands' ? bandReading : fewReading);
    const r = new Float64Array(3 * angles);
    for (let g = 0; g < angles; g++) {
      seen.fill(0);
      seenOf(p[of], tau, g, reading, seen, q ? share : 1);
      if (q) seenOf(q[of], tau, g, reading, seen, 1 - share);
      const lab = of === 'bands' ? xyzToLab([seen[0]!, seen[1]!, seen[2]!], w.white) : labOfFew(seen, w);
      for (let c = 0; c < 3; c++) r[3 * g + c] = weights[g]![c]! * (lab[c]! - target[g]!.lab[c]!);
    }
    return r;
  };
  /** Depth and share are unknowns where there is something to have them of. */
  const boundsOf = (film: Film): { start: number[]; lo: number[]; hi: number[] } => {
    const flaked = film.p.place >= 0;
    return {
      start: [...(flaked ? [film.tau] : []), ...(film.q ? [film.share] : [])],
      lo: [...(flaked ? [LEAST_TAU] : []), ...(film.q ? [0.02] : [])],
      hi: [...(flaked ? [MOST_TAU] : []), ...(film.q ? [0.98] : [])],
    };
  };

  /** A film brought nearer in depth, share and the three bands of a dye. */
  const fitted = (film: Film): Film => {
    const { start, lo, hi } = boundsOf(film);
    const own = start.length;
    const bands = mostDyes ? [0, 0, 0] : [];
    const answer = boundedGaussNewton(
      {
        residuals: (x) =>
          residualsOf(film, 'bands', own > 0 ? x[0]! : 0, own > 1 ? x[1]! : 1, mostDyes ? x.slice(own) : [0, 0, 0]),
        lo: [...lo, ...bands],
        hi: [...hi, ...bands.map(() => MOST_DEPTH)],
      },
      [...start, ...(mostDyes ? film.needs : [])],
      3,
    );
    return {
      ...film,
      tau: own > 0 ? answer.x[0]! : 0,
      share: own > 1 ? answer.x[1]! : 1,
      needs: mostDyes ? answer.x.slice(own) : [0, 0, 0],
      off: answer.squares,
    };
  };

  const choices: (readonly number[])[] = [[]];
  if (mostDyes > 0) shelf.dyes.forEach((_, i) => choices.push([i]));
  if (mostDyes > 1) shelf.dyes.forEach((_, i) => shelf.dyes.forEach((__, j) => j > i && choices.push([i, j])));

  /** The nearest dyes for a film, by least squares in three bands, then by its own table with depth and share beside them. */
  const dyed = (film: Film): Omit<Candidate, 'ground'>[] => {
    const { p, q } = film;
    const middle = Math.floor(angles / 2);
    const lit = new Float64Array(few);
    seenOf(p.light, film.tau, middle, readDepths(new Float64Array(few).fill(DEPTHS[1]), fewReading), lit, 1);
    const bands = shelf.dyes.map(({ depth }) =>
      Float64Array.from([w.x, w.y, w.z], (band) => {
        let [sum, all] = [0, 0];
        w.at.forEach((i, c) => {
          sum += band[c]! * lit[c]! * depth[i]!;
          all += band[c]! * lit[c]!;
        });
        return sum / Math.max(1e-9, all);
      }),
    );
    const begun = choices
      .map((dyes) => ({
        dyes,
        ...coveredBy(
          dyes.map((j) => bands[j]!),
          film.needs,
        ),
      }))
      .sort((x, y) => x.left - y.left)
      .slice(0, PAIRS);
    const { start, lo, hi } = boundsOf(film);
    const own = start.length;
    const depths = new Float64Array(few);
    return begun.map(({ dyes, amounts }) => {
      const answer = boundedGaussNewton(
        {
          residuals: (x) => {
            depths.fill(0);
            dyes.forEach((d, j) => {
              const { depth } = shelf.dyes[d]!;
              w.at.forEach((i, c) => (depths[c]! += x[own + j]! * depth[i]!));
            });
            return residualsOf(film, 'light', own > 0 ? x[0]! : 0, own > 1 ? x[1]! : 1, depths);
          },
          lo: [...lo, ...dyes.map(() => 0)],
          hi: [...hi, ...dyes.map(() => MOST_DEPTH)],
        },
        [...start, ...amounts],
        3,
      );
      const [tau, share] = [own > 0 ? answer.x[0]! : 0, own > 1 ? answer.x[1]! : 1];
      return {
        pigments:
          p.place < 0
            ? []
            : q
              ? [
                  [p.place, share * tau],
                  [q.place, (1 - share) * tau],
                ]
              : [[p.place, tau]],
        dyes: dyes.map((j, k) => [j, answer.x[own + k]!] as const),
        off: Math.sqrt(answer.squares / angles),
      };
    });
  };

  return (ground, worth = Infinity) => {
    const { bare, kinds } = tables(ground, places);
    const films: Film[] = [];
    /** The nearest of some depths and shares of a pair. */
    const take = (p: FilmTable, q: FilmTable | null) => {
      let best: Film | null = null;
      for (let t = p.place < 0 ? 0 : 1; t < p.bands.length; t++)
        for (const share of q ? SHARES : [1]) {
          const off = nearness(p.seen[t]!, q ? q.seen[t]! : null, share);
          if (!best || off < best.off) best = { p, q, tau: TAUS[t]!, share, needs: [...needs], off };
        }
      films.push(best!);
    };
    take(bare, null);
    for (const [i, p] of kinds.entries()) {
      take(p, null);
      if (mostPigments > 1) for (const q of kinds.slice(i + 1)) take(p, q);
    }
    const nearest = (of: readonly Film[], most: number) => [...of].sort((a, b) => a.off - b.off).slice(0, most);
    // What a dye in three bands can't bring near no dye can.
    return nearest(nearest(films, FITTED).map(fitted), DYED)
      .filter(({ off }) => Math.sqrt(off / angles) < worth)
      .flatMap(dyed)
      .map((c) => ({ ...c, ground }))
      .sort((a, b) => a.off - b.off);
  };
}
