import { Box, Button, Typography } from '@mui/material';
import { linearOfByte, photoLab, type Lab } from '@steady-gleam/core/colour';
import type { ReadingSet } from '@steady-gleam/contracts';
import { useState } from 'react';
import { cssOf } from '../../shared/screenColour';
import { oneSpotTarget } from '../../shared/oneSpot';
import { sayLab } from '../../shared/sayLab';

/** How well a colour that was picked on a screen says what is wanted, Lab units; ours. */
export const CHIP_DOUBT = 6;
/** The grey of L* 50 in linear light: what the screen's colours are held against. */
const GREY = 0.184;

/** The colour of a hex value as a screen shows it; null for what is none. */
export function labOfHex(hex: string): Lab | null {
  const bytes = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex)?.slice(1);
  if (!bytes) return null;
  const linear = (i: number) => linearOfByte(parseInt(bytes[i]!, 16));
  return photoLab([GREY, GREY, GREY], [linear(0), linear(1), linear(2)], 50);
}

/** A target picked on the screen: one colour, between face and flop, with a screen's doubt. */
export function ColourChip({ onSave, onCancel }: { onSave: (set: ReadingSet) => Promise<void>; onCancel: () => void }) {
  const [hex, setHex] = useState('#4a90a4');
  const [failure, setFailure] = useState<string | null>(null);
  const lab = labOfHex(hex);
  const save = async () => {
    if (!lab) return;
    setFailure(null);
    try {
      await onSave(oneSpotTarget('chip', 45, lab, CHIP_DOUBT));
    } catch (error) {
      setFailure(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Box sx={{ maxWidth: 560 }}>
      <Typography sx={{ mb: 1 }}>
        Pick the colour between face and flop. A screen is not a proof: it is kept with a doubt of {CHIP_DOUBT} units,
        and the card decides.
      </Typography>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <Box
          component="input"
          type="color"
          aria-label="Colour"
          value={hex}
          onChange={(e: { target: { value: string } }) => setHex(e.target.value)}
          sx={{ width: 96, height: 96, p: 0, border: 0, background: 'none', cursor: 'pointer' }}
        />
        {lab ? (
          <>
            <Box sx={{ width: 180, height: 96, background: cssOf(lab) }} aria-hidden />
            <Typography>{sayLab(lab)}</Typography>
          </>
        ) : null}
      </Box>
      {failure ? (
        <Typography role="alert" sx={{ color: 'error.main', mt: 1 }}>
          {failure}
        </Typography>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
        <Button variant="contained" onClick={() => void save()} disabled={!lab}>
          Keep this colour
        </Button>
        <Button variant="outlined" onClick={onCancel}>
          Leave it
        </Button>
      </Box>
    </Box>
  );
}
