import { decimalIn } from '@steady-gleam/core/formats';

/** A typed figure, decimal point or comma; NaN for anything else and for nothing. The one reader of typed figures. */
export const numberIn = decimalIn;

/** A sentence about a fraction's bounds, for a field in which percent is typed. */
export function inPercent(sentence: string): string {
  return sentence.replace(
    /(below|above) (\d+(?:\.\d+)?)/,
    (_, side: string, v: string) => `${side} ${Number((Number(v) * 100).toFixed(4))} %`,
  );
}
