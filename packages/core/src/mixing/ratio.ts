/** A ratio read, or the sentence that says what to write instead. */
export type RatioResult =
  { readonly ok: true; readonly parts: readonly number[] } | { readonly ok: false; readonly message: string };

/**
 * Reads a mixing ratio as it stands on a sheet: "4:1:2", "2:1 + 10 %", "10 %". A percentage is of the volume parts before it.
 * @returns parts by volume, the product first.
 */
export function parseRatio(text: string): RatioResult {
  const tokens = text
    .trim()
    .replaceAll(',', '.')
    .split(/[:+]/)
    .map((t) => t.trim());
  const hint = 'Write the ratio as on the sheet, for instance 4:1:2 or 2:1 + 10 %.';
  if (tokens.length > 5) return { ok: false, message: 'A mix has five parts at most.' };
  const parts: number[] = [];
  for (const [i, token] of tokens.entries()) {
    const match = /^(\d+(?:\.\d+)?)\s*(%?)$/.exec(token);
    if (!match) return { ok: false, message: hint };
    const value = Number(match[1]);
    if (!(value > 0)) return { ok: false, message: 'Every part must be above zero; leave out what is not mixed in.' };
    if (match[2]) {
      if (i === 0) {
        if (tokens.length > 1) return { ok: false, message: hint };
        parts.push(1);
      }
      if (value > 400) return { ok: false, message: 'A percentage over 400 % is more than any sheet asks for.' };
      parts.push((value / 100) * parts.reduce((a, b) => a + b, 0));
    } else parts.push(value);
  }
  return { ok: true, parts };
}
