import { Box, Button, Typography } from '@mui/material';
import { useSyncExternalStore, useState } from 'react';
import { Slide } from '../ui/Slide';

/** A bank card, mm (ISO/IEC 7810 ID-1). */
const CARD = { width: 85.6, height: 53.98 } as const;
/** CSS pixels in a millimetre where nothing is known of the screen: 96 to the inch, as CSS has it. */
export const NOMINAL_PX_PER_MM = 96 / 25.4;
const STORED = 'steady-gleam.px-per-mm';
const listeners = new Set<() => void>();

function read(): number | null {
  try {
    const value = Number(localStorage.getItem(STORED) ?? NaN);
    return value > 1 && value < 20 ? value : null;
  } catch {
    return null;
  }
}

/** Pixels in a millimetre of this screen, as it was measured with a card; null until it was. */
export function useScreenScale(): number | null {
  return useSyncExternalStore((notify) => {
    listeners.add(notify);
    return () => listeners.delete(notify);
  }, read);
}

/** A frame of a bank card: drawn as large as the card that is held to it, it tells the scale of the screen. */
export function ScreenScale({ onDone }: { onDone: () => void }) {
  const known = useScreenScale();
  const [px, setPx] = useState(known ?? NOMINAL_PX_PER_MM);
  return (
    <Box role="group" aria-label="Scale of this screen" sx={{ mt: 1 }}>
      <Typography>
        Hold a bank card to the frame and drag until both are alike. It is asked once on this screen.
      </Typography>
      <Box
        aria-hidden
        sx={{
          width: CARD.width * px,
          height: CARD.height * px,
          border: '2px solid',
          borderRadius: `${3.2 * px}px`,
          my: 1,
          maxWidth: '100%',
        }}
      />
      <Box sx={{ display: 'flex', gap: 3, alignItems: 'center', maxWidth: 560 }}>
        <Slide aria-label="Size of the frame" min={2.5} max={8} step={0.01} value={px} onChange={setPx} />
        <Button
          variant="contained"
          sx={{ flex: 'none' }}
          onClick={() => {
            localStorage.setItem(STORED, String(px));
            listeners.forEach((l) => l());
            onDone();
          }}
        >
          They are alike
        </Button>
      </Box>
    </Box>
  );
}
