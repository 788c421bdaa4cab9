/** Wrong codes from one address before it has to wait, and from all addresses together. */
const FREE = { address: 5, all: 30 } as const;
/** Longest wait, s. */
const LONGEST = { address: 900, all: 30 } as const;
/** After so long without a try an address starts anew, ms. */
const FORGET_MS = 60 * 60_000;

interface Count {
  wrong: number;
  /** No try before this moment, ms. */
  until: number;
  last: number;
}

/** Tries at the door: each wrong one past the free ones doubles the wait of its address; many from everywhere make all wait a little. */
export function createTries(now: () => number = Date.now) {
  const by = new Map<string, Count>();
  const all: Count = { wrong: 0, until: 0, last: 0 };
  const counted = (address: string): Count => {
    const known = by.get(address);
    if (known && now() - known.last < FORGET_MS) return known;
    if (by.size > 10_000) by.clear();
    const fresh: Count = { wrong: 0, until: 0, last: now() };
    by.set(address, fresh);
    return fresh;
  };
  const add = (count: Count, free: number, longest: number) => {
    count.wrong++;
    count.last = now();
    const past = count.wrong - free;
    if (past >= 0) count.until = now() + 1000 * Math.min(longest, 2 ** Math.min(20, past));
  };
  return {
    /** Seconds until a try is taken; 0 for now. A try that is taken counts as wrong until it is said to be right. */
    begin: (address: string): number => {
      const own = counted(address);
      if (now() - all.last > FORGET_MS) all.wrong = 0;
      const wait = Math.max(own.until, all.until) - now();
      if (wait > 0) return Math.ceil(wait / 1000);
      add(own, FREE.address, LONGEST.address);
      add(all, FREE.all, LONGEST.all);
      return 0;
    },
    right: (address: string): void => {
      by.delete(address);
      all.wrong = Math.max(0, all.wrong - 1);
      if (all.wrong < FREE.all) all.until = 0;
    },
  };
}

export type Tries = ReturnType<typeof createTries>;
