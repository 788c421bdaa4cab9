import { Box, Button, Typography } from '@mui/material';
import { sayOn, extraTold, nextCoatTold } from '@steady-gleam/core/jobs';
import { liveAdvice } from '@steady-gleam/core/letdown';
import { sayCoats } from '../../shared/jobModel';
import type { JobWorked } from '../../shared/useJobWork';
import { newId } from '../../shared/newId';
import { capital } from '../../shared/capital';
import { layable } from './sprayModel';
import type { Live } from './useLive';
import { UndoTap } from '../../shared/UndoTap';

/** How much is on, from the job's log; a coat told here is an entry of it like a tap in the booth. */
export function SprayedSoFar({ live, work }: { live: Live; work: JobWorked }) {
  const { state, log } = work;
  const { layerIds, areaIds, least, most } = live;
  const on = least === most ? sayCoats(most) : `${sayCoats(least)} to ${sayCoats(most)}`;
  const advised = layable((live.state && liveAdvice(live.state).amount) || 0.5);
  const tenth = advised.letDown === null ? null : advised;
  const done = nextCoatTold(state, layerIds, areaIds, newId);
  return (
    <Box role="group" aria-label="Sprayed so far" sx={{ mb: 2 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
        <Typography variant="h2">Sprayed so far</Typography>
        <Box component="output" aria-label="Effect coats on" sx={{ typography: 'h1', minWidth: 60 }}>
          {on}
        </Box>
        <Button variant="outlined" disabled={!done.length} onClick={() => log.tell(...done)}>
          {done[0]?.kind === 'extra' ? 'One coat more is on' : 'The next coat is on'}
        </Button>
        <Button variant="outlined" onClick={() => log.tell(...extraTold(state, layerIds, areaIds, 0.5, true, newId))}>
          ½ more is on
        </Button>
        <Button variant="outlined" onClick={() => log.tell(...extraTold(state, layerIds, areaIds, 0.25, true, newId))}>
          ¼ more is on
        </Button>
        {tenth ? (
          <Button
            variant="outlined"
            onClick={() => log.tell(...extraTold(state, layerIds, areaIds, tenth.coats, true, newId, true))}
          >
            {capital(tenth.said.replace(' of the mix', ','))} is on
          </Button>
        ) : null}
        <UndoTap {...{ state, log }} label="Undo" variant="text" color="inherit" />
      </Box>
      <Typography variant="body2" data-testid="on" sx={{ color: 'text.secondary' }}>
        {sayOn(state)}
        {log.unsent ? ` ${log.unsent} kept on this device, on their way.` : ''}
      </Typography>
    </Box>
  );
}
