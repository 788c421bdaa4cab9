/**
 * For `JSON.parse` of what comes from outside: refuses keys that every object has already (`__proto__`, `constructor`,
 * `toString` and so on), which would change what it is made from or be looked up in its place. @throws SyntaxError
 */
export function refuseInherited(key: string, value: unknown): unknown {
  if (Object.hasOwn(Object.prototype, key)) throw new SyntaxError(`A key can’t be named ${key}.`);
  return value;
}
