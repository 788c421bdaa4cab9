/** One look at the server's clock: how far this device is behind it, and how long the answer took; ms. */
interface Sample {
  readonly offset: number;
  readonly trip: number;
}

const STORED = 'steady-gleam.clock-offset';

function kept(): Sample | null {
  try {
    const offset = Number(localStorage.getItem(STORED) ?? NaN);
    // Of unknown age: any answer of the server is better.
    return Number.isFinite(offset) ? { offset, trip: Infinity } : null;
  } catch {
    return null;
  }
}

let sample = kept();
const listeners = new Set<() => void>();

/**
 * Takes in what an answer said of the server's clock. The quickest answer is the most exact one; a slower one counts when it
 * can't be explained by the time it took, since then a clock was set.
 * @param serverMs the server's time. @param sentMs and @param receivedMs this device's, around the request
 */
export function learnClock(serverMs: number, sentMs: number, receivedMs: number): void {
  const trip = receivedMs - sentMs;
  if (!Number.isFinite(serverMs) || trip < 0) return;
  const offset = serverMs - (sentMs + trip / 2);
  const moved = sample ? Math.abs(offset - sample.offset) > (trip + Math.min(sample.trip, trip)) / 2 + 50 : true;
  if (sample && trip > sample.trip && !moved) return;
  sample = { offset, trip };
  try {
    localStorage.setItem(STORED, String(Math.round(offset)));
  } catch {
    // Without storage the offset holds until the page is left.
  }
  listeners.forEach((l) => l());
}

/** What this device's clock is behind the server's, ms; negative where it is ahead. */
export const clockOffset = (): number => sample?.offset ?? 0;

/** The shop's time, ms since 1970: the server's clock as far as it is known, also while the server is away. */
export const shopNow = (): number => Date.now() + clockOffset();

/** {@link shopNow} as it is stored. */
export const shopIso = (): string => new Date(shopNow()).toISOString();

export function onClock(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The painter's time zone by its IANA name, for papers made on the server. */
export const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;
