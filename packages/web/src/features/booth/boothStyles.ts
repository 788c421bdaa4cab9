/** Buttons for gloves: 72 px and more. */
export const TALL = { minHeight: 76, fontSize: 22, borderRadius: '2px' } as const;
/** The one button of a step. */
export const MAIN = { ...TALL, minHeight: 96, fontSize: 30, lineHeight: 1.1 } as const;
export const BIG = { fontFamily: 'h1.fontFamily', fontStretch: '82%', fontWeight: 700, lineHeight: 1.04 } as const;
/** Two columns of a step: what is to be done, and the buttons. */
export const STEP = {
  flex: 1,
  display: 'grid',
  gridTemplateColumns: 'minmax(0, 1.25fr) minmax(330px, 1fr)',
  gap: 3,
  px: 3,
  pt: 1,
  pb: 2,
  // Upright the text has the whole width, and the buttons stand where the hands are.
  '@media (orientation: portrait)': { gridTemplateColumns: 'minmax(0, 1fr)', gridTemplateRows: '1fr auto' },
} as const;

/** Minutes and seconds, as a clock across the booth shows them; hours where there are any. */
export function countdown(ms: number): string {
  const s = Math.max(0, Math.ceil(ms / 1000));
  const pad = (n: number) => String(n).padStart(2, '0');
  return s >= 3600
    ? `${Math.floor(s / 3600)}:${pad(Math.floor((s % 3600) / 60))}:${pad(s % 60)}`
    : `${Math.floor(s / 60)}:${pad(s % 60)}`;
}
