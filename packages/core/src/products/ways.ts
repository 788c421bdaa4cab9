import type { Gun } from './guns';
import type { Product } from './products';

/** Kinds of coats that a can lays otherwise than a gun. */
type LaidKind = 'primer' | 'sealer' | 'ground' | 'effect' | 'lock' | 'clear';

/**
 * A way of laying that is not a gun with cup and needle: how it is laid, what it waits, and what stands in its way. Common practice
 * (no source); the can's own sheet rules.
 */
export interface Way {
  /** Film comes in light coats, whatever the recipe's style. */
  readonly light: boolean;
  readonly distanceCm: number;
  /** Nothing is mixed: the can is shaken, and it holds so many ml. */
  readonly canMl: number;
  readonly mostClears: number;
  /** What is told before the first coat. */
  readonly shake: string;
  readonly caution: string;
}

const AEROSOL: Way = {
  light: true,
  distanceCm: 28,
  canMl: 400,
  mostClears: 2,
  shake:
    'Shake each can two to three minutes from the first rattle, and again between coats. Light coats from 25 to 30 cm, none wet; at most two clears. Polish after four to five days, not before.',
  caution:
    'Solvent and propellant: out of the cold, no spark or flame, exhaust on, mask by its sheet. A two-pack can holds isocyanates: air-fed respirator, skin and eyes covered, and it sets in the can. The sheet and local rules come first.',
};

/** The way of a kind of gun; null where it is laid as any gun does. */
export const wayOf = (gun: Pick<Gun, 'kind'>): Way | null => (gun.kind === 'aerosol' ? AEROSOL : null);

/**
 * Wait after a coat from a can at 20 C, minutes: 10 between light coats, 15 after the last of a layer, 30 before the mid coat, 20
 * between clears. Common practice (no source).
 */
export function canWait(kind: LaidKind, last: boolean, next: LaidKind | null): number {
  if (kind === 'clear') return 20;
  if (!last) return 10;
  return next === 'effect' ? 30 : 15;
}

/** What a can's way says against a stack: null when nothing does. @param clears coats of clear in it */
export function wayTells(way: Way, clears: number, products: readonly Pick<Product, 'chemistry'>[]): string[] {
  return [
    ...(clears > way.mostClears
      ? [`From cans at most ${way.mostClears} clears are laid; these are ${clears}. More stay soft and wrinkle.`]
      : []),
    ...(products.some((p) => p.chemistry === 'two-pack')
      ? ['A two-pack can is activated once and used the same day.']
      : []),
  ];
}
