import { Box, Button, Typography, useTheme } from '@mui/material';
import { laidOf, SCUFFED, type CellState } from '@steady-gleam/core/jobs';
import { useEffect, useRef } from 'react';
import { FIGURES } from '../../app/theme';
import { timeSaid } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';
import { countdown, MAIN, TALL } from './boothStyles';
import { beep, speak, type Signals } from './useSignals';
import { areaName, type StepProps } from './stepProps';

/** What the clock says of the next coat, and the tap that it is on. */
export function Clock({
  plan,
  state,
  at,
  log,
  signals,
  onTap,
}: Pick<StepProps, 'plan' | 'state' | 'log'> & { at: CellState; signals: Signals; onTap: () => void }) {
  const { tones } = useTheme();
  const now = useNow();
  const { cell } = at;
  const wait = state.readyAt === null ? 0 : state.readyAt - now;
  const mayGo = wait <= 0 || state.isDull;
  const late = state.closesAt !== null && now > state.closesAt;
  const area = areaName(plan, cell.areaId);
  // The cue is given once, when a clock that ran ends while the page is open.
  const ran = useRef<number | null>(null);
  const { sound, voice } = signals;
  const spoken = `${area}: ${cell.coat.name} may go on. Look that it is dull.`;
  useEffect(() => {
    if (state.readyAt === null) return;
    if (wait > 0) ran.current = state.readyAt;
    else if (ran.current === state.readyAt) {
      ran.current = null;
      if (sound) beep();
      if (voice) speak(spoken);
    }
  }, [state.readyAt, wait, sound, voice, spoken]);
  const said = late
    ? `Too late as it is: the recoat window of the coat below on ${area} closed at ${timeSaid(state.closesAt, now)}. Scuff it, or do as its sheet says, clean and tack; then spray.`
    : state.readyAt === null
      ? 'Nothing has to flash below it.'
      : wait > 0
        ? `Flash of the coat below on ${area}. ${state.isDull ? 'You said it is dull.' : 'Wait, or tick it dull.'}`
        : state.isDull
          ? 'The clock is over and it is dull.'
          : 'The clock is over. Look that it is evenly dull.';
  const tell = (cells: readonly CellState[]) => {
    onTap();
    log.tell({ kind: 'sprayed', cells: cells.map((s) => laidOf(s.cell)), text: late ? SCUFFED : '' });
  };
  return (
    <>
      <Box data-testid="clock" sx={{ fontFamily: FIGURES, fontSize: 92, lineHeight: 1, fontWeight: 600 }}>
        {late ? 'late' : wait > 0 ? countdown(wait) : 'go'}
      </Box>
      <Typography
        role={late ? 'alert' : undefined}
        sx={{ fontSize: 20, minHeight: 52, ...(late ? { borderLeft: `4px solid ${tones.danger}`, pl: 1.5 } : {}) }}
      >
        {said}
      </Typography>
      <Button variant="contained" disabled={!mayGo} sx={MAIN} onClick={() => tell([at])}>
        {late ? 'Scuffed and sprayed: next' : 'Sprayed: next'}
      </Button>
      <Box sx={{ display: 'grid', gridTemplateColumns: state.round.length > 1 ? '1fr 1fr' : '1fr', gap: 1.25 }}>
        {state.round.length > 1 ? (
          <Button variant="outlined" disabled={!mayGo} sx={TALL} onClick={() => tell(state.round)}>
            Whole round: {state.round.length} areas
          </Button>
        ) : null}
        <Button
          variant="outlined"
          aria-pressed={state.isDull}
          disabled={!at.under.length || state.isDull}
          sx={TALL}
          onClick={() => log.tell({ kind: 'dull', cells: at.under.map(({ coatId, areaId }) => ({ coatId, areaId })) })}
        >
          {state.isDull ? 'Dull: ticked' : 'It is dull'}
        </Button>
      </Box>
    </>
  );
}
