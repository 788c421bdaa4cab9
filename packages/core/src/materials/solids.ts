import { CoreError } from '../errors';
import { spectrumFrom } from '../colour/spectrum';

/** A hiding or translucent solid pigment as a base colour: Kubelka-Munk figures of a full-strength (masstone) dry film. */
export interface SolidPigment {
  readonly id: string;
  readonly name: string;
  /** Absorption and scattering per um of dry film, 31 values each. */
  readonly k: Float64Array;
  readonly s: Float64Array;
  readonly source: string;
}

/** A step from `from` below the edge to `to` above it, smooth over some nm. */
const edge = (at: number, width: number, from: number, to: number) => (nm: number) =>
  to + (from - to) / (1 + Math.exp((nm - at) / width));
const bump = (at: number, width: number, height: number) => (nm: number) =>
  height * Math.exp(-(((nm - at) / width) ** 2));
const sum =
  (...of: readonly ((nm: number) => number)[]) =>
  (nm: number) =>
    of.reduce((all, f) => all + f(nm), 0);
const flat = (v: number) => () => v;

const FROM_MEMORY = 'smooth curve of the usual pigment of this kind, from memory; amounts invented for the demo';

const solid = (id: string, name: string, k: (nm: number) => number, s: (nm: number) => number): SolidPigment => ({
  id,
  name,
  k: spectrumFrom(k),
  s: spectrumFrom(s),
  source: FROM_MEMORY,
});

/** Base colours of the library, the hiding ones first. */
export const SOLIDS: readonly SolidPigment[] = [
  solid('solid-white', 'White base', edge(405, 6, 0.12, 0.0003), (nm) => 0.5 * (550 / nm)),
  solid('solid-black', 'Black base', flat(0.55), flat(0.006)),
  solid(
    'solid-yellow-oxide',
    'Yellow oxide base',
    sum(edge(505, 14, 0.22, 0.008), flat(0.002)),
    edge(520, 40, 0.03, 0.07),
  ),
  solid('solid-red-oxide', 'Red oxide base', sum(edge(575, 10, 0.36, 0.02), flat(0.004)), edge(590, 30, 0.04, 0.09)),
  solid('solid-yellow', 'Lemon base, translucent', edge(484, 8, 0.16, 0.0003), (nm) => 0.02 * (550 / nm) ** 2),
  solid('solid-orange', 'Orange base, translucent', edge(553, 8, 0.17, 0.0006), (nm) => 0.016 * (550 / nm)),
  solid('solid-red', 'Red base, translucent', edge(593, 8, 0.2, 0.0008), (nm) => 0.014 * (550 / nm)),
  solid(
    'solid-violet',
    'Violet base, translucent',
    sum(bump(560, 55, 0.24), bump(600, 30, 0.06), flat(0.004)),
    flat(0.006),
  ),
  solid('solid-blue', 'Blue base, translucent', sum(bump(620, 65, 0.3), bump(690, 50, 0.22), flat(0.003)), flat(0.006)),
  solid(
    'solid-green',
    'Green base, translucent',
    sum(bump(650, 55, 0.26), bump(430, 40, 0.16), flat(0.004)),
    flat(0.007),
  ),
];

/** @throws CoreError `notFound` */
export function findSolid(id: string, solids: readonly SolidPigment[] = SOLIDS): SolidPigment {
  const found = solids.find((s) => s.id === id);
  if (!found) throw new CoreError('notFound', `There is no base colour called ${id}.`);
  return found;
}

/** A base colour in a mix: its share of the film, 1 for the base colour alone. */
export interface SolidShare {
  readonly solidId: string;
  readonly share: number;
}

/** Kubelka-Munk figures of a film with these base colours in it, per um: both add by their shares (Duncan 1940). */
export function solidsInFilm(
  shares: readonly SolidShare[],
  solids: readonly SolidPigment[] = SOLIDS,
): { readonly k: Float64Array; readonly s: Float64Array } {
  const k = new Float64Array(31);
  const s = new Float64Array(31);
  for (const { solidId, share } of shares) {
    const found = findSolid(solidId, solids);
    for (let i = 0; i < 31; i++) {
      k[i]! += share * found.k[i]!;
      s[i]! += share * found.s[i]!;
    }
  }
  return { k, s };
}
