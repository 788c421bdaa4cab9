import { Box, Button, Typography } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { sayCheckOf, type CheckKind, type CheckState } from '@steady-gleam/core/jobs';
import { useState } from 'react';
import { FIGURES } from '../../app/theme';
import { useNow } from '../../shared/useNow';
import { FoundFault } from '../faults/FoundFault';
import { BIG, countdown, MAIN, STEP, TALL } from './boothStyles';
import type { StepProps } from './stepProps';
import { NoteBox } from './NoteBox';
import { ReasonBox } from './ReasonBox';
import { UndoTap } from '../../shared/UndoTap';

const PASSED: Record<CheckKind, string> = {
  prep: 'It is ready: start the run',
  shake: 'Shaken: go on',
  hiding: 'It hides: go on',
  mount: 'They hang so',
  look: 'Looked: go on as planned',
  close: 'Closed',
  mask: 'Masked',
  unmask: 'Unmasked',
  tail: 'The tail is fine',
  lamp: 'Nothing shows: to clear',
  flat: 'Flat and clean',
  mist: 'It lies even: go on',
  dry: 'It is dry',
  clean: 'Clean: go on',
  sand: 'Sanded and tacked',
  polish: 'Polished',
  strip: 'Stripped and feathered',
  set: 'It is set',
  tint: 'It is in the cup',
  standing: 'It stood long enough',
  bake: 'Baked',
};

/** A step that is not a coat: passed, left out with a reason, or a fault found at it. */
export function CheckStep({ jobId, plan, state, log, detail, at }: StepProps & { detail: JobDetail; at: CheckState }) {
  const now = useNow();
  const [open, setOpen] = useState<'skip' | 'fault' | 'note' | null>(null);
  const { check } = at;
  const { title, text } = sayCheckOf(plan, check);
  const wait = at.readyAt === null ? 0 : at.readyAt - now;
  const cells = check.areaIds.map((areaId) => ({ coatId: check.id, areaId }));
  const pass = () => {
    setOpen(null);
    log.tell(...(state.started === null ? [{ kind: 'start' as const }] : []), { kind: 'check', checkId: check.id });
  };
  const toggle = (what: typeof open) => setOpen(open === what ? null : what);
  return (
    <Box sx={STEP}>
      <Box>
        <Typography component="h1" data-testid="check" sx={{ ...BIG, fontSize: 52 }}>
          {title}
        </Typography>
        <Typography
          sx={{
            ...{ fontSize: at.is === 'fault' ? 19 : 26, lineHeight: 1.3, mt: 1.5, maxWidth: '46ch' },
            '@media (orientation: portrait)': { fontSize: at.is === 'fault' ? 22 : 32 },
          }}
        >
          {text}
        </Typography>
        {at.is === 'fault' ? (
          <FoundFault reason={at.reason} areaIds={check.areaIds} {...{ detail, plan, state, log }} />
        ) : null}
        {open === 'skip' || open === 'fault' ? (
          <ReasonBox
            kind={open}
            onSay={(reason) => {
              setOpen(null);
              log.tell({ kind: open, checkId: check.id, cells: open === 'fault' ? cells : [], text: reason });
            }}
          />
        ) : null}
        {open === 'note' ? <NoteBox jobId={jobId} cells={cells} log={log} onDone={() => setOpen(null)} /> : null}
      </Box>
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}>
        {check.minutes > 0 ? (
          <Box data-testid="clock" sx={{ fontFamily: FIGURES, fontSize: 104, lineHeight: 1, fontWeight: 600 }}>
            {wait > 0 ? countdown(wait) : 'done'}
          </Box>
        ) : null}
        <Button variant="contained" disabled={wait > 0} sx={MAIN} onClick={pass}>
          {at.is === 'fault' ? 'Put right: go on' : PASSED[check.kind]}
        </Button>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.25 }}>
          <Button variant="outlined" aria-expanded={open === 'fault'} sx={TALL} onClick={() => toggle('fault')}>
            A fault
          </Button>
          <Button variant="outlined" aria-expanded={open === 'skip'} sx={TALL} onClick={() => toggle('skip')}>
            Leave it out
          </Button>
          <UndoTap {...{ state, log }} sx={TALL} />
          <Button variant="outlined" aria-expanded={open === 'note'} sx={TALL} onClick={() => toggle('note')}>
            Note or photo
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
