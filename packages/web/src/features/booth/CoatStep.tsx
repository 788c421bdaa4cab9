import { Box, Button } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { cellKey, foundOn, PUT_RIGHT, type CellState } from '@steady-gleam/core/jobs';
import { sayCoat } from '@steady-gleam/core/spraying';
import { useState } from 'react';
import { STEP, TALL } from './boothStyles';
import { FoundFault } from '../faults/FoundFault';
import { NoteBox } from './NoteBox';
import { ReasonBox } from './ReasonBox';
import { type Signals } from './useSignals';
import { HowToLay, MoreOf } from './HowToLay';
import { Clock } from './StepClock';
import { areaName, type StepProps } from './stepProps';
import { UndoTap } from '../../shared/UndoTap';

const SMALLER = { ...TALL, fontSize: 20, px: 1, lineHeight: 1.1 } as const;

/** The next coat on the next area: how to lay it, its clock, and what can be told of it. */
export function CoatStep({
  jobId,
  plan,
  state,
  log,
  detail,
  at,
  signals,
}: StepProps & { detail: JobDetail; at: CellState; signals: Signals }) {
  const [open, setOpen] = useState<'swap' | 'note' | 'more' | 'skip' | 'fault' | null>(null);
  const { cell } = at;
  const found = foundOn(state, cell.areaId);
  const toggle = (what: typeof open) => setOpen(open === what ? null : what);
  const others = state.others.filter((s) => !state.round.includes(s) || s !== at);
  return (
    <Box sx={STEP}>
      <Box>
        {/* What was found leads until it is put right. */}
        {open === 'fault' || found !== null ? null : <HowToLay plan={plan} at={at} texture={detail.job.texture} />}
        {open === 'swap' ? (
          <Box
            role="group"
            aria-label="What may be sprayed instead"
            sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}
          >
            {others.map((o) => (
              <Button
                key={cellKey(o.cell)}
                variant="outlined"
                sx={TALL}
                onClick={() => {
                  setOpen(null);
                  log.tell({ kind: 'swap', cells: [{ coatId: o.cell.coatId, areaId: o.cell.areaId }] });
                }}
              >
                {areaName(plan, o.cell.areaId)}
                {o.cell.coatId === cell.coatId ? '' : `: ${sayCoat(o.cell.coat)}`}
              </Button>
            ))}
          </Box>
        ) : null}
        {open === 'note' ? <NoteBox jobId={jobId} cells={[cell]} log={log} onDone={() => setOpen(null)} /> : null}
        {open === 'more' ? <MoreOf plan={plan} state={state} log={log} at={at} onDone={() => setOpen(null)} /> : null}
        {open === 'fault' ? (
          <ReasonBox
            kind="fault"
            onSay={(text) => {
              setOpen(null);
              log.tell({ kind: 'fault', cells: [{ coatId: cell.coatId, areaId: cell.areaId }], text });
            }}
          />
        ) : null}
        {found !== null && open === null ? (
          <FoundFault
            reason={found.text}
            areaIds={[cell.areaId]}
            {...{ detail, plan, state, log }}
            onRight={() =>
              log.tell({
                kind: 'note',
                cells: [{ coatId: cell.coatId, areaId: cell.areaId }],
                text: `${PUT_RIGHT}${found.text}`.slice(0, 400),
              })
            }
          />
        ) : null}
        {open === 'skip' ? (
          <ReasonBox
            kind="skip"
            onSay={(text) => {
              setOpen(null);
              log.tell({ kind: 'skip', cells: [{ coatId: cell.coatId, areaId: cell.areaId }], text });
            }}
          />
        ) : null}
      </Box>
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}>
        {/* Nothing goes over what was found. */}
        {found === null ? (
          <Clock plan={plan} state={state} at={at} log={log} signals={signals} onTap={() => setOpen(null)} />
        ) : null}
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1.25 }}>
          <Button
            variant="outlined"
            disabled={!others.length}
            aria-expanded={open === 'swap'}
            sx={SMALLER}
            onClick={() => toggle('swap')}
          >
            Another area
          </Button>
          <Button variant="outlined" aria-expanded={open === 'note'} sx={SMALLER} onClick={() => toggle('note')}>
            Note or photo
          </Button>
          <Button variant="outlined" aria-expanded={open === 'fault'} sx={SMALLER} onClick={() => toggle('fault')}>
            A fault
          </Button>
          <Button variant="outlined" aria-expanded={open === 'more'} sx={SMALLER} onClick={() => toggle('more')}>
            More or enough
          </Button>
          <UndoTap {...{ state, log }} sx={{ ...SMALLER, gridColumn: 'span 2' }} />
        </Box>
        {open === 'more' || open === 'skip' ? (
          <Button variant="outlined" aria-expanded={open === 'skip'} sx={TALL} onClick={() => toggle('skip')}>
            Leave this coat out
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}
