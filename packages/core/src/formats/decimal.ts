/**
 * A figure as people write it, with a decimal point or a decimal comma, its minus a hyphen or the sign itself; NaN for anything else and for nothing. Thousands are not
 * grouped: "1,234.5" could be either and is refused.
 */
export function decimalIn(text: string | undefined): number {
  const plain = (text ?? '').trim().replace(/^\u2212/, '-');
  return /^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(plain) ? Number(plain.replace(',', '.')) : NaN;
}
