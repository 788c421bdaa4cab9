import { useSyncExternalStore } from 'react';

const STEP_MS = 1000;
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setInterval> | null = null;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  timer ??= setInterval(() => listeners.forEach((l) => l()), STEP_MS);
  return () => {
    listeners.delete(listener);
    if (!listeners.size && timer) {
      clearInterval(timer);
      timer = null;
    }
  };
}

/** The clock, to the second; it reads the time anew after sleep. */
export function useNow(): number {
  return useSyncExternalStore(subscribe, () => Math.floor(Date.now() / STEP_MS) * STEP_MS);
}
