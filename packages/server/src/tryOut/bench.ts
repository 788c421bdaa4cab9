import type { FinishFamily } from '@steady-gleam/core/finishes';
import {
  prepareLibrary,
  REFERENCE_LIBRARY,
  type OwnMaterial,
  type PreparedLibrary,
} from '@steady-gleam/core/materials';
import type { InstrumentAnswer } from '@steady-gleam/core/devices';
import {
  drawHidden,
  hiddenSight,
  liftCurtain,
  RAYS,
  simulatedRead,
  traceCurtain,
  type Curtain,
  type CurtainAsk,
  type HeldOn,
  type Picked,
  type Sight,
} from '@steady-gleam/core/tryOut';

/** What is asked of the hidden world: its seed, the shop's materials, what was picked, and the question. */
export type BenchAsk = {
  readonly seed: number;
  readonly family: FinishFamily;
  readonly own: readonly OwnMaterial[];
  readonly picked: Picked | null;
} & (
  | {
      readonly is: 'read';
      readonly held: HeldOn;
      readonly state: 'wet' | 'cleared';
      readonly nth: number;
      readonly white: number | null;
    }
  | { readonly is: 'part'; readonly part: number }
  | { readonly is: 'curtain'; readonly of: CurtainAsk }
);
export type BenchAnswer =
  InstrumentAnswer | { readonly is: 'part' } | { readonly is: 'curtain'; readonly curtain: Curtain };

/** So many worlds are remembered with what was traced of them. */
const MOST_WORLDS = 12;

/**
 * Answers of a world nobody is told of; some seconds of work at most. It keeps the library it was asked with last.
 * @param rays per colour
 */
export function createBench(rays = RAYS): (ask: BenchAsk) => BenchAnswer {
  let known: { readonly key: string; readonly shop: PreparedLibrary } | null = null;
  const sights = new Map<string, Sight>();
  return (ask) => {
    const key = JSON.stringify(ask.own);
    if (known?.key !== key) {
      known = { key, shop: prepareLibrary(ask.own) };
      sights.clear();
    }
    // The shop's own materials change nothing of what was hidden before they were there.
    const hidden = drawHidden(ask.seed, ask.family, REFERENCE_LIBRARY);
    const { picked } = ask;
    const of = JSON.stringify([ask.seed, ask.family, picked && [picked.groundId, picked.strength, picked.style]]);
    const sight = sights.get(of) ?? hiddenSight(known.shop, hidden, picked, rays);
    if (sights.size >= MOST_WORLDS) sights.clear();
    sights.set(of, sight);
    if (ask.is === 'part') {
      traceCurtain(sight, ask.part);
      return { is: 'part' };
    }
    if (ask.is === 'curtain') return { is: 'curtain', curtain: liftCurtain(hidden, sight, ask.of) };
    return simulatedRead(hidden, sight, ask.held, ask.state, ask.nth, ask.white);
  };
}
