/** A typed figure, decimal point or comma; NaN for anything else and for nothing. */
export function numberIn(text: string | undefined): number {
  const plain = (text ?? '').trim().replace(',', '.');
  return plain === '' ? NaN : Number(plain);
}
