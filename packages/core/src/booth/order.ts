/** A piece as it stands in the booth; metres. */
export interface BoothArea {
  readonly id: string;
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly areaM2: number;
  /** Jambs, edges and pockets: before everything else. */
  readonly first: boolean;
}

export interface BoothAir {
  /** Where the air goes, degrees from the x axis towards the y axis (clockwise on a plan whose y runs down). */
  readonly towards: number;
  /** Minutes a sprayed film takes overspray in without showing it. */
  readonly openMinutes: number;
  /** Minutes to spray a square metre. */
  readonly minutesPerM2: number;
}

/** Dry overspray below this is not worth a word: a twentieth of what a square metre sprayed right beside would lay; ours. */
export const OVERSPRAY_SEEN = 0.05;

/** Distance over which overspray thins to a third, m; ours. */
const REACH_M = 1.6;
/** Still air carries a little everywhere, as a share of what it carries down the stream; ours. */
const STILL = 0.15;

/** Overspray of one piece that reaches another, relative: more from a larger one, nearer, and down the air. */
export function oversprayOn(from: BoothArea, onto: BoothArea, air: BoothAir): number {
  const [dx, dy] = [onto.x - from.x, onto.y - from.y];
  const distance = Math.hypot(dx, dy);
  const angle = (air.towards * Math.PI) / 180;
  const along = distance < 1e-9 ? 0 : (dx * Math.cos(angle) + dy * Math.sin(angle)) / distance;
  return from.areaM2 * Math.exp(-distance / REACH_M) * Math.max(STILL, (1 + along) / 2);
}

/** How much of what lands after some minutes lies dry on the film: nothing for half the open time, all of it after the whole. */
function dryShare(minutes: number, open: number): number {
  return Math.min(1, Math.max(0, (minutes - open / 2) / (open / 2)));
}

/** How an order begins: what it has cost, when each of its pieces was done, and what time it is; minutes. */
interface Begun {
  readonly cost: number;
  readonly ended: readonly number[];
  readonly now: number;
}

/** The same order one piece longer. @param onto overspray of the new piece on each earlier one. */
function longer(begun: Begun, piece: BoothArea, onto: (earlier: number) => number, air: BoothAir): Begun {
  const minutes = piece.areaM2 * air.minutesPerM2;
  const middle = begun.now + minutes / 2;
  let { cost } = begun;
  begun.ended.forEach((end, i) => (cost += onto(i) * dryShare(middle - end, air.openMinutes)));
  const now = begun.now + minutes;
  return { cost, ended: [...begun.ended, now], now };
}

const NOTHING: Begun = { cost: 0, ended: [], now: 0 };

/** Dry overspray of an order: each later piece's on every earlier one, by how long that one has been drying. */
export function orderCost(order: readonly BoothArea[], air: BoothAir): number {
  return order.reduce((begun, p) => longer(begun, p, (i) => oversprayOn(p, order[i]!, air), air), NOTHING).cost;
}

/** Pieces ordered exactly; more are improved by moving one at a time. */
export const EXACT_UP_TO = 9;

/**
 * The order that lays the least dry overspray; jambs first. Exact by branch and bound up to {@link EXACT_UP_TO} pieces (cost
 * only grows as an order is lengthened), otherwise from up the air down it, improved by moving single pieces.
 */
export function bestOrder<A extends BoothArea>(pieces: readonly A[], air: BoothAir): A[] {
  const angle = (air.towards * Math.PI) / 180;
  const downwind = (p: A) => p.x * Math.cos(angle) + p.y * Math.sin(angle);
  const start = [...pieces].sort((a, b) => Number(b.first) - Number(a.first) || downwind(a) - downwind(b));
  // A good order to begin with cuts most others off early.
  const good = improve(start, air);
  return pieces.length <= EXACT_UP_TO ? exact(good, air) : good;
}

function exact<A extends BoothArea>(start: readonly A[], air: BoothAir): A[] {
  const onto = start.map((from) => start.map((p) => oversprayOn(from, p, air)));
  let best = [...start];
  let bestCost = orderCost(best, air);
  const order: number[] = [];
  /** What the pieces that are left will lay at the least on those that are done: each at once, while they are as wet as they get. */
  const atLeast = (begun: Begun, left: readonly number[]): number => {
    let least = begun.cost;
    for (const j of left) {
      const middle = begun.now + (start[j]!.areaM2 * air.minutesPerM2) / 2;
      for (let k = 0; k < order.length; k++)
        least += onto[j]![order[k]!]! * dryShare(middle - begun.ended[k]!, air.openMinutes);
    }
    return least;
  };
  const walk = (begun: Begun, left: readonly number[]): void => {
    if (atLeast(begun, left) >= bestCost - 1e-12) return;
    if (!left.length) {
      best = order.map((i) => start[i]!);
      bestCost = begun.cost;
      return;
    }
    const anyFirst = left.some((i) => start[i]!.first);
    for (const i of left) {
      const piece = start[i]!;
      if (anyFirst && !piece.first) continue;
      const next = longer(begun, piece, (k) => onto[i]![order[k]!]!, air);
      order.push(i);
      walk(
        next,
        left.filter((k) => k !== i),
      );
      order.pop();
    }
  };
  walk(
    NOTHING,
    start.map((_, i) => i),
  );
  return best;
}

function improve<A extends BoothArea>(start: readonly A[], air: BoothAir): A[] {
  let best = [...start];
  let bestCost = orderCost(best, air);
  for (let better = true; better;) {
    better = false;
    for (let i = 0; i < best.length; i++) {
      for (let j = 0; j < best.length; j++) {
        if (i === j || best[i]!.first !== best[j]!.first) continue;
        const next = [...best];
        const [moved] = next.splice(i, 1);
        next.splice(j, 0, moved!);
        const cost = orderCost(next, air);
        if (cost < bestCost - 1e-12) {
          [best, bestCost, better] = [next, cost, true];
        }
      }
    }
  }
  return best;
}

/** The pair of pieces an order does most harm to: whose overspray lies dry on which; null when none lays any worth a word. */
export function worstOverspray(
  order: readonly BoothArea[],
  air: BoothAir,
): { readonly from: BoothArea; readonly onto: BoothArea; readonly cost: number } | null {
  let worst: { from: BoothArea; onto: BoothArea; cost: number } | null = null;
  let now = 0;
  const ended: number[] = [];
  order.forEach((piece, k) => {
    const minutes = piece.areaM2 * air.minutesPerM2;
    for (let i = 0; i < k; i++) {
      const cost = oversprayOn(piece, order[i]!, air) * dryShare(now + minutes / 2 - ended[i]!, air.openMinutes);
      if (cost > (worst?.cost ?? OVERSPRAY_SEEN)) worst = { from: piece, onto: order[i]!, cost };
    }
    now += minutes;
    ended.push(now);
  });
  return worst;
}
