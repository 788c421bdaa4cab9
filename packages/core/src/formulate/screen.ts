import { xyzToLab, type Lab, labToXyz } from '../colour/lab';
import { WAVELENGTH_COUNT } from '../colour/spectrum';
import { D65_10, weightsOf } from '../colour/tristimulus';
import { boundedLeastSquares } from '../numeric/bounded';
import type { MapGround } from '../optics/preparedGround';
import type { PreparedCoat } from '../optics/coat';
import type { Pile, SlabCache } from '../optics/stack';
import { differenceWeights, residuals } from './residuals';
import { filmMaker, type FormulateInput } from './shelf';

/** Depths of flakes in all at which films are tabulated, and of a grey dye; dyed films lie between, wavelength by wavelength. */
const TAUS = [0.25, 0.75, 1.7] as const;
const DEPTHS = [0, 0.5, 1.7, 4.5] as const;
/** Shares of the first of two kinds. */
const SHARES = [0.25, 0.5, 0.75] as const;
/** Coats that films are tabulated at. */
const NOMINAL = 3;
/** Candidates of a ground that dyes are looked for, and pairs of dyes that are tried of each. */
const [DYED, PAIRS] = [36, 5] as const;
const KNOTS = DEPTHS.length;

/** A mix that may be near: places on the shelf, and amounts over the whole film. */
export interface Candidate {
  readonly ground: MapGround;
  readonly pigments: readonly (readonly [number, number])[];
  readonly dyes: readonly (readonly [number, number])[];
  /** Weighted rms over the angles, about CIEDE2000. */
  readonly off: number;
}

/** Factors of a film by grey dye depth, [knot][angle * 31 + wavelength], and its XYZ, [knot * angles * 3]. */
interface State {
  /** Kind of flakes by its place on the shelf; -1 for none. */
  readonly place: number;
  readonly tau: number;
  readonly factors: readonly Float64Array[];
  readonly xyz: Float64Array;
}

/**
 * Looks for mixes over one ground after the other: every kind of flakes and every pair at a few depths is tabulated under a grey
 * dye, which is exact for any dye wavelength by wavelength; what could come near by depth in three bands is dyed.
 */
export function createScreen(input: FormulateInput): (ground: MapGround) => Candidate[] {
  const { model, shelf, target, mostPigments, mostDyes } = input;
  const maker = filmMaker(input);
  const w = weightsOf(D65_10);
  const angles = target.length;
  const wanted = target.map((t) =>
    labToXyz([Math.max(0.2, t.lab[0]), t.lab[1], t.lab[2]], w.white).map((v) => Math.max(1e-3, v)),
  );
  const weights = differenceWeights(target);
  const grey = DEPTHS.map((d) => new Float64Array(WAVELENGTH_COUNT).fill(d));
  const places = mostPigments > 0 ? shelf.pigments.map((_, i) => i) : [];
  const shared = new Map<string, Pile>();

  const xyzOf = (factors: readonly Float64Array[]): Float64Array => {
    const out = new Float64Array(KNOTS * angles * 3);
    factors.forEach((f, k) => {
      for (let g = 0; g < angles; g++)
        for (let i = 0; i < WAVELENGTH_COUNT; i++) {
          const v = f[g * WAVELENGTH_COUNT + i]!;
          const at = (k * angles + g) * 3;
          out[at]! += v * w.x[i]!;
          out[at + 1]! += v * w.y[i]!;
          out[at + 2]! += v * w.z[i]!;
        }
    });
    return out;
  };
  // Slabs are shared by all grounds under one depth of dye, and the coats they are of.
  const slabs: readonly SlabCache[] = DEPTHS.map(() => new Map());
  const coats = new Map<string, PreparedCoat>();
  const coatOf = (place: number, tau: number, k: number): PreparedCoat => {
    const key = `${place}/${tau}/${k}`;
    let coat = coats.get(key);
    if (!coat) coats.set(key, (coat = maker(place < 0 ? [] : [[place, tau]], grey[k]!, NOMINAL)));
    return coat;
  };
  const stateOf = (ground: MapGround, place: number, tau: number): State => {
    const factors = grey.map((_, k) => {
      const coat = coatOf(place, tau, k);
      if (ground.coats.length) return model.over(ground, model.pile([...ground.coats, coat], slabs[k]));
      const key = `${place}/${tau}/${k}`;
      let pile = shared.get(key);
      if (!pile) shared.set(key, (pile = model.pile([coat], slabs[k])));
      return model.over(ground, pile);
    });
    return { place, tau, factors, xyz: xyzOf(factors) };
  };

  const needs = new Float64Array(3);
  const seen: [number, number, number] = [0, 0, 0];
  const logWanted = Float64Array.from(wanted.flat(), Math.log);
  const mixed = new Float64Array(KNOTS * angles * 3);
  /** How near a film could be dyed, by a depth in each of three bands; the depths are left in `needs`. */
  const nearness = (p: Float64Array, q: Float64Array | null, share: number): number => {
    for (let i = 0; i < mixed.length; i++)
      mixed[i] = Math.log((q ? share * p[i]! + (1 - share) * q[i]! : p[i]!) + 1e-9);
    for (let c = 0; c < 3; c++) {
      let [sum, weight] = [0, 0];
      for (let g = 0; g < angles; g++) {
        const t = logWanted[3 * g + c]!;
        let k = 0;
        while (k < KNOTS - 2 && mixed[((k + 1) * angles + g) * 3 + c]! > t) k++;
        const from = mixed[(k * angles + g) * 3 + c]!;
        const slope = (from - mixed[((k + 1) * angles + g) * 3 + c]!) / (DEPTHS[k + 1]! - DEPTHS[k]!);
        if (slope < 1e-4) continue;
        sum += slope * slope * (DEPTHS[k]! + (from - t) / slope);
        weight += slope * slope;
      }
      needs[c] = mostDyes && weight > 0 ? Math.min(DEPTHS.at(-1)!, Math.max(0, sum / weight)) : 0;
    }
    let off = 0;
    for (let g = 0; g < angles; g++) {
      for (let c = 0; c < 3; c++) {
        const d = needs[c]!;
        let k = 0;
        while (k < KNOTS - 2 && DEPTHS[k + 1]! < d) k++;
        const f = (d - DEPTHS[k]!) / (DEPTHS[k + 1]! - DEPTHS[k]!);
        const at = (k * angles + g) * 3 + c;
        seen[c] = Math.exp((1 - f) * mixed[at]! + f * mixed[at + 3 * angles]!);
      }
      const lab = xyzToLab(seen, w.white);
      for (let c = 0; c < 3; c++) off += (weights[g]![c]! * (lab[c]! - target[g]!.lab[c]!)) ** 2;
    }
    return off;
  };

  return (ground) => {
    const bare = stateOf(ground, -1, 0);
    const states = places.flatMap((place) => TAUS.map((tau) => stateOf(ground, place, tau)));
    type Film = {
      readonly p: State;
      readonly q: State | null;
      readonly share: number;
      readonly off: number;
      readonly needs: Float64Array;
    };
    const films: Film[] = [];
    const take = (p: State, q: State | null, share: number) =>
      films.push({ p, q, share, off: nearness(p.xyz, q?.xyz ?? null, share), needs: needs.slice() });
    take(bare, null, 1);
    for (const s of states) take(s, null, 1);
    if (mostPigments > 1)
      for (const [i, p] of states.entries())
        for (const q of states.slice(i + 1))
          if (q.place !== p.place && q.tau === p.tau) for (const share of SHARES) take(p, q, share);
    films.sort((a, b) => a.off - b.off);
    return films
      .slice(0, DYED)
      .flatMap(({ p, q, share, needs: depths }) => dyed(p, q, share, depths))
      .map(({ pigments, dyes, off }) => ({ ground, pigments, dyes, off }))
      .sort((a, b) => a.off - b.off);
  };

  /** The nearest dyes for a film, by least squares in three bands, then by its own table. */
  function dyed(p: State, q: State | null, share: number, depths: Float64Array): Omit<Candidate, 'ground'>[] {
    const table = p.factors.map((f, k) => (q ? f.map((v, i) => share * v + (1 - share) * q.factors[k]![i]!) : f));
    const logs = table.map((f) => f.map((v) => Math.log(v + 1e-9)));
    const pigments: (readonly [number, number])[] =
      p.place < 0
        ? []
        : q
          ? [
              [p.place, share * p.tau],
              [q.place, (1 - share) * q.tau],
            ]
          : [[p.place, p.tau]];
    const look = (dyes: readonly number[], amounts: readonly number[]): Lab[] => {
      const labs: Lab[] = [];
      for (let g = 0; g < angles; g++) {
        let [x, y, z] = [0, 0, 0];
        for (let i = 0; i < WAVELENGTH_COUNT; i++) {
          let d = 0;
          for (let j = 0; j < dyes.length; j++) d += amounts[j]! * shelf.dyes[dyes[j]!]!.depth[i]!;
          let k = 0;
          while (k < KNOTS - 2 && DEPTHS[k + 1]! < d) k++;
          const f = (d - DEPTHS[k]!) / (DEPTHS[k + 1]! - DEPTHS[k]!);
          const at = g * WAVELENGTH_COUNT + i;
          const v = Math.exp((1 - f) * logs[k]![at]! + f * logs[k + 1]![at]!);
          x += v * w.x[i]!;
          y += v * w.y[i]!;
          z += v * w.z[i]!;
        }
        labs.push(xyzToLab([x, y, z], w.white));
      }
      return labs;
    };
    const middle = Math.floor(angles / 2) * WAVELENGTH_COUNT;
    const lit = table[1]!.subarray(middle, middle + WAVELENGTH_COUNT);
    const bands = shelf.dyes.map(({ depth }) =>
      Float64Array.from([w.x, w.y, w.z], (band) => {
        let [sum, all] = [0, 0];
        for (let i = 0; i < WAVELENGTH_COUNT; i++) {
          sum += band[i]! * lit[i]! * depth[i]!;
          all += band[i]! * lit[i]!;
        }
        return sum / Math.max(1e-9, all);
      }),
    );
    const choices: number[][] = [[]];
    if (mostDyes > 0) shelf.dyes.forEach((_, i) => choices.push([i]));
    if (mostDyes > 1) shelf.dyes.forEach((_, i) => shelf.dyes.forEach((__, j) => j > i && choices.push([i, j])));
    const most = DEPTHS.at(-1)! * 2;
    const begun = choices
      .map((dyes) => {
        const columns = dyes.map((j) => bands[j]!);
        const amounts = boundedLeastSquares(
          columns,
          depths,
          dyes.map(() => 0),
          dyes.map(() => most),
        );
        const left = depths.reduce(
          (s, v, c) => s + (v - dyes.reduce((t, _, j) => t + amounts[j]! * columns[j]![c]!, 0)) ** 2,
          0,
        );
        return { dyes, amounts, left };
      })
      .sort((a, b) => a.left - b.left)
      .slice(0, PAIRS);
    return begun.map(({ dyes, amounts: start }) => {
      let amounts = start;
      let r = residuals(look(dyes, amounts), target, weights);
      for (let round = 0; round < 3 && dyes.length; round++) {
        const columns = dyes.map((_, j) => {
          const moved = amounts.map((v, k) => (k === j ? v + 0.03 : v));
          const then = residuals(look(dyes, moved), target, weights);
          return then.map((v, k) => (v - r[k]!) / 0.03);
        });
        const step = boundedLeastSquares(
          columns,
          r.map((v) => -v),
          amounts.map((v) => -v),
          amounts.map((v) => most - v),
        );
        const next = amounts.map((v, j) => v + step[j]!);
        const then = residuals(look(dyes, next), target, weights);
        if (sum(then) >= sum(r)) break;
        [amounts, r] = [next, then];
      }
      return { pigments, dyes: dyes.map((j, k) => [j, amounts[k]!] as const), off: Math.sqrt(sum(r) / angles) };
    });
  }
}

const sum = (r: Float64Array): number => r.reduce((s, v) => s + v * v, 0);
