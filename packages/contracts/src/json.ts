/** Whether a string can be kept as text: without NUL, and with no half of a pair of surrogates. */
export const isText = (value: string): boolean =>
  !value.includes('\0') && !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(value);

/** Keys every object has already (`__proto__`, `constructor`, `toString`): they would change what they are looked up in. */
const isInherited = (key: string): boolean => Object.hasOwn(Object.prototype, key);

/**
 * What in parsed JSON from outside can't be worked with, in a sentence; null where there is nothing: a key that every object has
 * already, or a text that can't be kept as text, however deep it stands.
 */
export function oddIn(parsed: unknown): string | null {
  const waiting: unknown[] = [parsed];
  while (waiting.length) {
    const value = waiting.pop();
    if (typeof value === 'string') {
      if (!isText(value)) return 'A text in this request holds signs that are none.';
    } else if (Array.isArray(value)) for (const own of value as unknown[]) waiting.push(own);
    else if (value !== null && typeof value === 'object')
      for (const [key, own] of Object.entries(value)) {
        if (isInherited(key) || !isText(key)) return 'A name in this request can’t be one.';
        waiting.push(own);
      }
  }
  return null;
}
