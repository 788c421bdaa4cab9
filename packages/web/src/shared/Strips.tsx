interface StripsProps {
  /** Of each angle: the colour above and the one below, as CSS; null for none. */
  readonly pairs: readonly (readonly [string, string | null | undefined])[];
  readonly width?: number;
  /** px, or as CSS has it. */
  readonly height?: number | string;
}

/** One look over another in a row of a table, angle by angle, touching. */
export function Strips({ pairs, width, height = 44 }: StripsProps) {
  return (
    <div style={{ display: 'flex', width, height }} aria-hidden>
      {pairs.map(([above, below], g) => (
        <div key={g} style={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
          <div style={{ flex: 1, background: above }} />
          <div style={{ flex: 1, background: below ?? 'none' }} />
        </div>
      ))}
    </div>
  );
}
