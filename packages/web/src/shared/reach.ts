import { useSyncExternalStore } from 'react';

/** What the last calls say of the way to the server. */
export interface Reach {
  /** The last call had no answer. */
  readonly isAway: boolean;
  /** The shop asks who this is. */
  readonly isLocked: boolean;
  /** Another build of the program answers than the one this page is of; null while it is the same. */
  readonly newBuild: string | null;
}

let reach: Reach = { isAway: false, isLocked: false, newBuild: null };
const listeners = new Set<(now: Reach, before: Reach) => void>();

function change(to: Partial<Reach>): void {
  const next = { ...reach, ...to };
  if (next.isAway === reach.isAway && next.isLocked === reach.isLocked && next.newBuild === reach.newBuild) return;
  const before = reach;
  reach = next;
  for (const l of listeners) l(next, before);
}

export const reachNow = (): Reach => reach;

export function onReach(listener: (now: Reach, before: Reach) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** A call had no answer. */
export const toldAway = (): void => change({ isAway: true });

/**
 * A call was answered. @param isLocked null where the answer says nothing of it. @param build which build answered
 * @param own which build this page is of; empty where it was not built
 */
export function toldThere(isLocked: boolean | null, build: string | null, own: string): void {
  change({
    isAway: false,
    isLocked: isLocked ?? reach.isLocked,
    newBuild: build !== null && own !== '' && build !== own ? build : null,
  });
}

export function useReach(): Reach {
  return useSyncExternalStore(onReach, reachNow);
}
