import { useSyncExternalStore } from 'react';
import { shopNow } from './clock';

const TICK_MS = 1000;
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | null = null;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= setInterval(() => listeners.forEach((l) => l()), TICK_MS);
  return () => {
    listeners.delete(listener);
    if (!listeners.size && timer) {
      clearInterval(timer);
      timer = null;
    }
  };
}

/**
 * The shop's clock, ms since 1970, in whole steps: a page that shows minutes is not drawn every second. It reads the time anew after
 * sleep. @param stepMs a second or more.
 */
export function useNow(stepMs = TICK_MS): number {
  return useSyncExternalStore(subscribe, () => Math.floor(shopNow() / stepMs) * stepMs);
}
