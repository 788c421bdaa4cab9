import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { STYLES, TEXTURES, type Texture } from '@steady-gleam/core/finishes';
import {
  cellKey,
  ENOUGH,
  foundOn,
  isMend,
  PUT_RIGHT,
  laidOf,
  sayReach,
  SCUFFED,
  LET_DOWN,
  letDownMl,
  type CellState,
  type JobPlan,
  type JobState,
  enoughTold,
  extraTold,
} from '@steady-gleam/core/jobs';
import { sayCoat } from '@steady-gleam/core/spraying';
import { useEffect, useRef, useState } from 'react';
import { FIGURES } from '../../app/theme';
import type { JobLog } from '../../shared/log/useLog';
import { timeSaid } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';
import { useUnits } from '../../shared/units';
import { newId } from '../../shared/newId';
import { BIG, capital, countdown, MAIN, STEP, TALL } from './boothStyles';
import { FoundFault } from '../faults/FoundFault';
import { NoteBox } from './NoteBox';
import { ReasonBox } from './ReasonBox';
import { beep, speak, type Signals } from './useSignals';

export interface StepProps {
  readonly jobId: string;
  readonly plan: JobPlan;
  readonly state: JobState;
  readonly log: JobLog;
}

const SMALLER = { ...TALL, fontSize: 20, px: 1, lineHeight: 1.1 } as const;

const areaName = (plan: JobPlan, areaId: string): string => {
  const area = plan.areas.find((a) => a.id === areaId);
  const object = plan.objects.length > 1 ? plan.objects.find((o) => o.id === area?.objectId) : undefined;
  return `${area?.name ?? ''}${object ? `, ${object.name}` : ''}`;
};

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
          <Button
            variant="outlined"
            disabled={!state.undoable}
            sx={{ ...SMALLER, gridColumn: 'span 2' }}
            onClick={() => log.tell({ kind: 'undo', text: state.undoable!.id })}
          >
            Undo last tap
          </Button>
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

/** The coat in words and figures across the booth, and where it ends. */
function HowToLay({ plan, at, texture }: { plan: JobPlan; at: CellState; texture: Texture | null }) {
  const { tones } = useTheme();
  const units = useUnits();
  const { cell } = at;
  const { coat } = cell;
  const peel = coat.kind === 'clear' ? TEXTURES.find((t) => t.id === texture) : undefined;
  const reach = sayReach(cell.reach, {
    area: (v) => units.say('area', v),
    distance: (v) => units.say('distance', v),
  });
  return (
    <>
      <Typography component="h1" data-testid="coat" sx={{ ...BIG, fontSize: 58 }}>
        {capital(
          at.isExtra && !isMend(cell) ? `${STYLES[coat.style].name.toLowerCase()} more of ${coat.name}` : sayCoat(coat),
        )}
      </Typography>
      <Typography component="p" data-testid="piece" sx={{ ...BIG, fontSize: 40, color: tones.inkSoft }}>
        on {areaName(plan, cell.areaId)}
      </Typography>
      {reach ? (
        <Typography
          data-testid="reach"
          sx={{ fontSize: 26, lineHeight: 1.2, mt: 1, borderLeft: `4px solid ${tones.pick}`, pl: 1.5 }}
        >
          {capital(reach)}
        </Typography>
      ) : null}
      {coat.name.endsWith(LET_DOWN) ? (
        <Typography
          data-testid="let-down"
          sx={{ fontSize: 24, lineHeight: 1.2, mt: 1, borderLeft: `4px solid ${tones.pick}`, pl: 1.5 }}
        >
          Let {units.say('volume', letDownMl(cell, plan.gun.transfer))} of the cup down with as much of its carrier or
          reducer, stir, strain.
        </Typography>
      ) : null}
      <Typography sx={{ fontSize: 30, lineHeight: 1.25, mt: 1 }}>
        {STYLES[coat.style].name}, {Math.round(coat.overlap * 100)} % overlap
        {cell.reach.kind !== 'all' ? '' : coat.led ? `, ${coat.led}` : coat.walk ? ', walk the whole side' : ''}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(3, auto)',
          columnGap: 4,
          rowGap: 0.5,
          mt: 1.5,
          justifyContent: 'start',
        }}
      >
        {[
          [units.say('distance', coat.distanceCm), 'away'],
          [units.say('pressure', coat.pressureBar), 'at the gun'],
          [`${coat.turns}`, 'turns open'],
          [`${coat.tipMm} mm`, 'tip'],
          [units.say('speed', coat.speedCmS), 'speed'],
          [units.say('film', coat.filmUm), 'dry'],
        ].map(([value, name]) => (
          <Box key={name}>
            <Box sx={{ fontFamily: FIGURES, fontSize: 32, lineHeight: 1.1 }}>{value}</Box>
            <Box sx={{ fontSize: 17, color: tones.inkSoft }}>{name}</Box>
          </Box>
        ))}
      </Box>
      {peel ? (
        <Typography data-testid="peel" sx={{ fontSize: 20, mt: 1, maxWidth: '56ch' }}>
          Its peel is {peel.id}: {peel.matchedBy}.
        </Typography>
      ) : null}
      <Typography sx={{ mt: 1.5, fontSize: 18, borderLeft: `4px solid ${tones.danger}`, pl: 1.5, maxWidth: '60ch' }}>
        {coat.caution}
      </Typography>
    </>
  );
}

/** A coat more of this than is planned, or none of it any more. */
function MoreOf({
  plan,
  state,
  log,
  at,
  onDone,
}: Pick<StepProps, 'plan' | 'state' | 'log'> & { at: CellState; onDone: () => void }) {
  const { layerId, areaId, objectId } = at.cell;
  const areas = plan.areas.filter((a) => a.objectId === objectId).map((a) => a.id);
  const extra = (coats: number) => {
    log.tell(...extraTold(state, [layerId], [areaId], coats, false, newId));
    onDone();
  };
  const left = enoughTold(state, [layerId], areas, ENOUGH);
  return (
    <Box role="group" aria-label="More or enough" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 2 }}>
      <Button variant="outlined" sx={TALL} onClick={() => extra(1)}>
        One coat more here
      </Button>
      <Button variant="outlined" sx={TALL} onClick={() => extra(0.5)}>
        Half a coat more here
      </Button>
      <Button
        variant="outlined"
        sx={TALL}
        disabled={!left.length}
        onClick={() => {
          log.tell(...left);
          onDone();
        }}
      >
        Enough {at.cell.coat.name}, go on
      </Button>
    </Box>
  );
}

/** What the clock says of the next coat, and the tap that it is on. */
function Clock({
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
