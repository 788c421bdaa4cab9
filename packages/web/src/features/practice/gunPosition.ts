/** Where a hand holds the gun, cm on the panel, and the trigger. */
export interface GunHeld {
  readonly x: number;
  readonly y: number;
  readonly d: number;
  readonly on: boolean;
}

/** How the gun follows what moves it. `keys`: arrows at the gun's own speed; `arm`: by itself. */
export const MOVES = ['hand', 'steadied', 'keys', 'arm'] as const;
export type Moves = (typeof MOVES)[number];

/** Nearest and furthest a gun is held, and a step of the wheel, cm. */
export const [NEAREST, FURTHEST, WHEEL_CM] = [8, 35, 1] as const;
export const heldAt = (d: number): number => Math.min(FURTHEST, Math.max(NEAREST, d));

/** How long a steadied gun takes to follow along and across a pass, s; ours. */
const FOLLOWS = { x: 0.08, y: 0.35 } as const;

/** A steadied gun a moment later: it follows what moves it, softly along, more softly across, and no faster than one speed. */
export function steadied(now: GunHeld, wanted: GunHeld, seconds: number, mostCmS: number): GunHeld {
  const nearer = (at: number, to: number, takes: number) => at + (to - at) * (1 - Math.exp(-seconds / takes));
  const x = nearer(now.x, wanted.x, FOLLOWS.x);
  const step = Math.min(Math.abs(x - now.x), mostCmS * seconds) * Math.sign(x - now.x);
  return { ...wanted, x: now.x + step, y: nearer(now.y, wanted.y, FOLLOWS.y) };
}

/** Keys that move the gun, and which way. */
const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
export const isWay = (key: string): boolean => Object.hasOwn(WAYS, key);

/** The gun a moment later while keys are held: along at its own speed, across at a third of it. */
export function keyed(now: GunHeld, keys: ReadonlySet<string>, seconds: number, speedCmS: number): GunHeld {
  let { x, y } = now;
  for (const key of keys) {
    const way = WAYS[key];
    if (!way) continue;
    x += way[0] * speedCmS * seconds;
    y += (way[1] * speedCmS * seconds) / 3;
  }
  return { ...now, x, y };
}
