import { Box } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { findMix } from '@steady-gleam/core/materials';
import { useCompute } from '../worker/useCompute';
import { useLibrary } from './library';
import { cssOf, exposuresByAngle } from './screenColour';

/** Colours side by side without a gap. */
export function Swatches({ labs, height = 40 }: { labs: readonly Lab[]; height?: number }) {
  const exposures = exposuresByAngle([labs]);
  return (
    <Box sx={{ display: 'flex', height }} aria-hidden>
      {labs.map((lab, i) => (
        <Box key={i} sx={{ flex: 1, background: cssOf(lab, exposures[i]) }} />
      ))}
    </Box>
  );
}

/** Coats a mix is shown at. */
const SHOWN = [1, 2, 3, 4] as const;

interface MixStripProps {
  readonly id: string;
  /** Of a mix of the shop's own: another look after it was changed. */
  readonly version?: number;
  readonly height?: number;
}

/** What a mix looks like: 1 to 4 coats at 45 degrees over the ground its family begins with. */
export function MixStrip({ id, version = 0, height = 40 }: MixStripProps) {
  const mix = { mixId: id, strength: 1, style: 'wet' as const, controlCoats: 0 };
  const { library } = useLibrary();
  const ground = FAMILIES[findMix(id, library.systems).family].start.groundId;
  const { value } = useCompute(`mix/${id}/${version}`, (c) =>
    Promise.all(SHOWN.map((n) => c.sectionColours(mix, ground, n))),
  );
  return value ? <Swatches labs={value.map((v) => v.effect)} height={height} /> : <Box sx={{ height }} />;
}
