import { Box, useTheme } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { findMix } from '@steady-gleam/core/materials';
import { useLibrary } from '../../shared/library';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { useCompute } from '../../worker/useCompute';

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

export function PigmentSwatch({ id, version }: { id: string; version: number }) {
  const { value } = useCompute(`pigment/${id}/${version}`, (c) => c.pigmentLook(id, 0.5));
  return value ? (
    <Box>
      <Swatches labs={value.white} height={20} />
      <Swatches labs={value.black} height={20} />
    </Box>
  ) : (
    <Box sx={{ height: 40 }} />
  );
}

export function DyeSwatch({ id, version }: { id: string; version: number }) {
  const { value } = useCompute(`dye/${id}/${version}`, (c) => c.dyeLook(id));
  return value ? <Swatches labs={value} /> : <Box sx={{ height: 40 }} />;
}

/** How much of what is sprayed stays: the solid part, filled. */
export function CarrierSwatch({ solids }: { solids: number }) {
  const { tones } = useTheme();
  return (
    <Box
      sx={{ height: 40, border: `1px solid ${tones.hairline}`, display: 'flex', alignItems: 'flex-end' }}
      aria-hidden
    >
      <Box sx={{ width: '100%', height: `${solids * 100}%`, background: tones.hairline }} />
    </Box>
  );
}

export function MixSwatch({ id, version }: { id: string; version: number }) {
  const mix = { mixId: id, strength: 1, style: 'wet' as const, controlCoats: 0 };
  const { library } = useLibrary();
  const ground = FAMILIES[findMix(id, library.systems).family].start.groundId;
  const { value } = useCompute(`mix/${id}/${version}`, (c) =>
    Promise.all([1, 2, 3, 4].map((n) => c.sectionColours(mix, ground, n))),
  );
  return value ? <Swatches labs={value.map((v) => v.effect)} /> : <Box sx={{ height: 40 }} />;
}
