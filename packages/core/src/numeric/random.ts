/** Seeded generator of uniform numbers in 0..1 (mulberry32, public domain). */
export function createRandom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Standard normal number from a uniform generator (Box-Muller). */
export function normal(random: () => number): number {
  const u = 1 - random();
  return Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random());
}

/** A seed from words and figures: the same for the same ones, far off for others (FNV-1a, 32 bit). */
export function seedOf(...parts: readonly (string | number)[]): number {
  let hash = 0x811c9dc5;
  for (const part of parts)
    for (const sign of `${part}\u001f`) {
      hash ^= sign.codePointAt(0)!;
      hash = Math.imul(hash, 0x01000193);
    }
  return hash >>> 0;
}
