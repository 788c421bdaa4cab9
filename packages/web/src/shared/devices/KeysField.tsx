import { Box, Button, Typography } from '@mui/material';
import { Said } from '../../ui/Field';
import { Input } from '../../ui/Input';
import { sortBurst } from '@steady-gleam/core/devices';
import type { Reading } from '@steady-gleam/core/formats';
import { useEffect, useRef, useState } from 'react';
import { FIGURES } from '../../app/theme';
import type { Angle } from '../angles';

/** A burst is over when nothing was typed for so long, ms; keys come every few ms, a person's far slower. */
const QUIET_MS = 600;

/** Takes what an instrument types like a keyboard, and sorts it into angles; what can't be sorted is said, and nothing is taken. */
export function KeysField({
  angles,
  onRead,
}: {
  angles: readonly Angle[];
  onRead: (readings: readonly Reading[]) => void;
}) {
  const [text, setText] = useState('');
  const [said, setSaid] = useState('');
  const timer = useRef(0);
  useEffect(() => () => window.clearTimeout(timer.current), []);
  const sort = (burst: string) => {
    window.clearTimeout(timer.current);
    if (!burst.trim()) return;
    const sorted = sortBurst(burst, angles);
    setSaid(sorted.ok ? '' : sorted.said);
    if (!sorted.ok) return;
    setText('');
    onRead(sorted.readings);
  };
  return (
    <Box sx={{ mt: 2, maxWidth: 560 }}>
      <Typography variant="body2" component="label" htmlFor="instrument-keys">
        Leave the cursor here and press the instrument’s key: L*, a*, b* at{' '}
        {angles.map((a) => `${a.aspecular}°`).join(', ')}, one spot after the other.
      </Typography>
      <Input
        id="instrument-keys"
        autoFocus
        multiline
        minRows={2}
        value={text}
        aria-invalid={said !== ''}
        {...(said ? { 'aria-describedby': 'instrument-keys-said' } : {})}
        spellCheck={false}
        style={{ fontFamily: FIGURES }}
        onChange={(e) => {
          const burst = e.target.value;
          setText(burst);
          window.clearTimeout(timer.current);
          timer.current = window.setTimeout(() => sort(burst), QUIET_MS);
        }}
      />
      {said ? <Said id="instrument-keys-said" text={said} wrong /> : null}
      {said ? (
        <Button variant="text" color="inherit" onClick={() => (setText(''), setSaid(''))} sx={{ px: 0.5 }}>
          Clear it and read again
        </Button>
      ) : null}
    </Box>
  );
}
