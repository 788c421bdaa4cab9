import { sayLooks, wantedAt } from '../letdown/advise';
import { answerCard } from '../letdown/answer';
import { brighterFrom } from '../letdown/eyeSight';
import { EYE_VIEWS } from '../letdown/eyeWords';
import { liveState, sayEyeLook, wordOfVerdicts, type SpotLook } from '../letdown/live';
import { nextAmount } from '../letdown/rule';
import type { PreparedLibrary } from '../materials/shop';
import {
  amountThere,
  anewChances,
  firstStopOf,
  lookSdOf,
  mendedChances,
  repairChances,
  wantedAnew,
} from '../recovery/chances';
import { createPainter } from './run';
import { createEye, trueWindow } from './eyeRun';
import type { World } from './world';

/** What a way out promised of a place, and how it ended. */
export interface Repair {
  readonly way: 'leave' | 'faded' | 'reground';
  readonly by: 'readings' | 'eye';
  readonly promised: number;
  readonly inside: boolean;
  readonly over: boolean;
}

/** What makes a place differ from the side it is on: a share of its film, and how much a pass that missed takes away. */
const PLACE = { share: 0.07, missed: 0.35, often: 0.5 } as const;
const LOOKS = { wet: 0.03, dry: 0.015 } as const;
/** A light coat that is faded in scatters as the advice has it, and the gun with it. */
const LAID = { coat: 0.09, gun: 0.03, session: 0.06 } as const;

/** Repairs of one painter: places that came out otherwise than meant, looked at, and mended each way there is. */
export function studyRepairs(
  world: World,
  seed: number,
  shop: PreparedLibrary,
  { each, now }: { readonly each: number; readonly now: () => number },
): Repair[] {
  const painter = createPainter(world, seed, shop, now);
  const { draw, random, read, target, hand, jobCoats, of, four: card } = painter;
  const window = trueWindow(world, target);
  // Where no film passes at every angle nothing ends inside; the card says so beforehand.
  const end = (film: number) => ({
    inside: window !== null && film >= window[0] && film <= window[1],
    over: window !== null && film > window[1],
  });
  const judge = createEye(world, random, EYE_VIEWS.slice(0, 4));
  const seen = answerCard(of, {
    ...{ target, bare: painter.bare, rungs: painter.rungs, verdicts: [], handHeld: false, believed: {} },
  })!;
  const passes = card.window.inside;
  const repairs: Repair[] = [];
  for (let j = 0; j < each; j++) {
    const session = hand * Math.exp(draw(LAID.session));
    const coats = jobCoats();
    // As many coats as the card tells, to the half; a place of it that got less or more.
    const on = Math.max(1, Math.round(card.best * 2 + draw(0.4)) / 2);
    let film = 0;
    for (let i = 0; i < on; i++) film += session * Math.min(1, on - i) * coats[i]!;
    const off = random() < PLACE.often ? 1 - PLACE.missed * random() : Math.exp(draw(PLACE.share));
    const there = film * off;
    for (const by of ['readings', 'eye'] as const) {
      const wet = by === 'readings' && random() < 0.5;
      const lookOnce = (sprayed: number, lies: number): SpotLook[] => {
        if (by === 'readings') {
          const local = lies * Math.exp(draw(wet ? LOOKS.wet : LOOKS.dry));
          const shared = wet ? ([draw(0.3), draw(0.3), draw(0.3)] as const) : ([0, 0, 0] as const);
          const labs = read(world.ladder(local), wet ? 3 : 9, shared);
          return sayLooks(card, [{ sprayed, labs, wet, spots: wet ? 3 : 9 }]).map((says) => ({ spot: 'edge', says }));
        }
        const verdicts = judge(sprayed, lies);
        const word = wordOfVerdicts(
          verdicts.map((v) => v.verdict),
          verdicts.map((v) => (brighterFrom(seen.read, v.view, card.best) ? 'lighter' : 'darker')),
          verdicts.map((v) => v.view),
        );
        return [{ spot: 'edge', says: sayEyeLook(card, seen.read, verdicts, sprayed, word), word }];
      };
      const looks = lookOnce(on, there);
      const spot = liveState(card, on, looks).spots[0];
      if (!spot || spot.zone === 'unlike') continue;
      const { wanted } = spot;
      repairs.push({ way: 'leave', by, promised: repairChances(0, wanted, passes).in, ...end(there) });
      const amount = spot.zone === 'short' ? amountThere(spot.spray, wanted, passes) : 0;
      if (amount > 0) {
        const n = Math.max(1, Math.round(amount / 0.45));
        let laid = 0;
        for (let i = 0; i < n; i++)
          laid += (amount / n) * (1 + LAID.coat * draw() * Math.sqrt(1 / Math.max(1, amount / n)));
        let mended = there + session * (laid + LAID.gun * amount * draw());
        const then = liveState(card, on + amount, [...looks, ...lookOnce(on + amount, mended)]).spots[0];
        const more = then?.spray ?? 0;
        mended += session * more * (1 + LAID.coat * draw());
        const promised = mendedChances(amount, spot, passes).in;
        repairs.push({ way: 'faded', by, promised, ...end(mended) });
      }
      if (spot.zone === 'over' || spot.zone === 'short') {
        const anew = wantedAnew(spot.film, wanted);
        const again = jobCoats();
        const k = firstStopOf(anew);
        let laid = 0;
        for (let i = 0; i < k; i++) laid += session * Math.min(1, k - i) * again[i]!;
        const says = lookOnce(k, laid).map((l) => l.says);
        const q = says.length ? nextAmount(wantedAt(card, says, k), 0) : 0;
        laid += session * q * (1 + LAID.coat * draw());
        repairs.push({
          way: 'reground',
          by,
          promised: anewChances(anew, lookSdOf(spot), passes).in,
          ...end(laid),
        });
      }
    }
  }
  return repairs;
}
