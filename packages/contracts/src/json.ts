/** Whether a string can be kept as text: without NUL, and with no half of a pair of surrogates. */
export const isText = (value: string): boolean =>
  !value.includes('\0') && !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(value);

/**
 * For `JSON.parse` of what comes from outside: refuses keys that every object has already (`__proto__`, `constructor`,
 * `toString` and so on), which would change what it is made from or be looked up in its place; and texts that can't be kept as
 * text. @throws SyntaxError
 */
export function refuseInherited(key: string, value: unknown): unknown {
  if (Object.hasOwn(Object.prototype, key)) throw new SyntaxError(`A key can’t be named ${key}.`);
  if (typeof value === 'string' && !isText(value)) throw new SyntaxError('A text holds signs that are none.');
  return value;
}
