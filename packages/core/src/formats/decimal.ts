/**
 * A figure as people write it, with a decimal point or a decimal comma; NaN for anything else and for nothing. Thousands are not
 * grouped: "1,234.5" could be either and is refused.
 */
export function decimalIn(text: string | undefined): number {
  const plain = (text ?? '').trim();
  return /^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(plain) ? Number(plain.replace(',', '.')) : NaN;
}
