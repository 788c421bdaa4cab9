import { Box, useTheme } from '@mui/material';
import { Swatches } from '../../shared/MixStrip';
import { useCompute } from '../../worker/useCompute';

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
