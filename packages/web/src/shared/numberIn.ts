import { decimalIn } from '@steady-gleam/core/formats';

/** A typed figure, decimal point or comma; NaN for anything else and for nothing. The one reader of typed figures. */
export const numberIn = decimalIn;

/** A sentence about a fraction's bounds, for a field in which percent is typed. */
export function inPercent(sentence: string): string {
  const percent = (v: string) => Number((Number(v) * 100).toFixed(4));
  return sentence
    .replace(/(below|above) (\d+(?:\.\d+)?)/, (_, side: string, v: string) => `${side} ${percent(v)} %`)
    .replace(
      /a fraction, ([\d.]+) to ([\d.]+\d|\d)/,
      (_, a: string, b: string) => `in percent, ${percent(a)} to ${percent(b)}`,
    );
}
