/**
 * A value as figures of known jobs are recorded: numbers to six digits, so that rounding is not told from rounding, maps and typed
 * arrays as lists, functions left out.
 */
export function recorded(value: unknown): unknown {
  if (typeof value === 'number') return Number.isFinite(value) ? Number(value.toPrecision(6)) + 0 : String(value);
  if (typeof value === 'function') return undefined;
  if (value instanceof Map) return [...value].map(recorded);
  if (value instanceof Set) return [...value].map(recorded);
  if (ArrayBuffer.isView(value)) return Array.from(value as Float64Array, recorded);
  if (Array.isArray(value)) return value.map(recorded);
  if (value !== null && typeof value === 'object')
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, recorded(v)]));
  return value;
}

/** A short mark of everything in a value (FNV-1a over what is recorded of it): it changes with any figure. */
export function markOf(value: unknown): string {
  let hash = 0x811c9dc5;
  for (const char of JSON.stringify(recorded(value))) {
    hash ^= char.codePointAt(0)!;
    hash = Math.imul(hash, 0x01000193);
  }
  return (hash >>> 0).toString(16).padStart(8, '0');
}
