import type { Lab } from '@steady-gleam/core/colour';
import { cssOf, exposuresByAngle } from './screenColour';

/** Colours from face to flop without figures, for a row of a list: one over the other, touching. */
export function TouchingStrip({
  over,
  under,
  height,
  label,
}: {
  over: readonly Lab[];
  under?: readonly Lab[] | undefined;
  height: number;
  label: string;
}) {
  const exposures = exposuresByAngle(under ? [over, under] : [over]);
  const band = (labs: readonly Lab[]) => (
    <div style={{ display: 'flex', flex: 1 }}>
      {labs.map((lab, g) => (
        <div key={g} style={{ flex: 1, background: cssOf(lab, exposures[g]) }} />
      ))}
    </div>
  );
  return (
    <div role="img" aria-label={label} style={{ display: 'flex', flexDirection: 'column', height }}>
      {band(over)}
      {under ? band(under) : null}
    </div>
  );
}
