import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import type { Lab } from '@steady-gleam/core/colour';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { averageReadings } from '@steady-gleam/core/formats';
import { sayCheckOf, sayList, unseenOf, type CheckState } from '@steady-gleam/core/jobs';
import { viewsOf, type EyeView, type Verdict } from '@steady-gleam/core/letdown';
import { useState } from 'react';
import { angleKey } from '../../shared/angles';
import { sayCoats } from '../../shared/jobModel';
import { ReadThere } from '../spray/ReadThere';
import { useLive, type Live } from '../spray/useLive';
import { FoundFault } from '../faults/FoundFault';
import { BIG, STEP, TALL } from './boothStyles';
import type { StepProps } from './stepProps';
import { NoteBox, TextLine } from './NoteBox';
import { ReasonBox } from './ReasonBox';
import { Seen, AfterMend, WhatFollows } from './WhatFollows';
import { PlaceChoice, MoreOrLess } from './PlaceChoice';

/** The advice's stop: the object is looked at before the next coat; what is said of it decides what follows. */
export function LookStep({
  jobId,
  plan,
  state,
  log,
  detail,
  at,
  onRead,
}: StepProps & { detail: JobDetail; at: CheckState; onRead: () => void }) {
  const { check } = at;
  const live = useLive(detail, plan, state, check.objectId!);
  const [spot, setSpot] = useState(check.spot || 'all over');
  const [view, setView] = useState<EyeView>(check.views?.[0] ?? 'lamp');
  const coats = live.at(spot);
  const [open, setOpen] = useState<'spot' | 'note' | 'skip' | 'fault' | 'read' | null>(null);
  const toggle = (what: typeof open) => setOpen(open === what ? null : what);
  const planned = plannedOn(state, live);
  const { byEye, keeps } = FAMILIES[detail.job.family];
  const missing = unseenOf(plan, state).find((u) => u.objectId === check.objectId)?.missing ?? [];
  const { less, more } = byEye;
  const views = check.views ?? viewsOf(detail.job.family);
  const { title, text } = sayCheckOf(plan, check);
  const cells = check.areaIds.map((areaId) => ({ coatId: check.id, areaId }));
  const here = live.seen.find((s) => s.coats === coats && s.spot === spot && s.view === view)?.verdict ?? null;
  const say = (verdict: Verdict) =>
    log.tell({
      kind: 'look',
      checkId: check.id,
      cells,
      layerId: check.layerId,
      coats,
      look: { spot, view, verdict, patch: null },
    });
  /** Places a mend still has to be looked at from. */
  const left = (check.views ?? []).filter(
    (v) => !live.seen.some((s) => s.coats === coats && s.spot === check.spot && s.view === v && s.verdict !== null),
  );
  return (
    <Box sx={STEP}>
      <Box>
        <Typography component="h1" data-testid="check" sx={{ ...BIG, fontSize: 52 }}>
          {title}
        </Typography>
        <Typography sx={{ fontSize: 22, mt: 0.5 }}>
          {check.views ? '' : `${sayCoats(live.most)} of ${sayCoats(planned)} effect coats are on. `}
          {text} {keeps}
          {missing.length ? ` Before it is called matched an eye has to look ${sayList(missing)}.` : ''}
        </Typography>
        {at.is === 'fault' ? (
          <FoundFault reason={at.reason} areaIds={check.areaIds} {...{ detail, plan, state, log }} />
        ) : null}
        {open === 'read' ? null : <Seen live={live} read={newestRead(detail, live, spot, coats)} />}
        {open === 'read' ? null : live.said ? (
          <Typography data-testid="advice" sx={{ fontSize: 24, lineHeight: 1.25, mt: 1.5, maxWidth: '50ch' }}>
            <b>{live.said.answer}</b> {live.said.why}
          </Typography>
        ) : (
          <Typography sx={{ fontSize: 22, mt: 1.5 }}>
            No card was read: compare with what has to be matched, and go on only where it is {less}.
          </Typography>
        )}
        {open === 'spot' ? (
          <TextLine
            label="Where, for instance: nose"
            act="Look there"
            onKeep={(text) => {
              setSpot(text.slice(0, 40));
              setOpen(null);
            }}
          />
        ) : null}
        {open === 'read' ? (
          <Box sx={{ mt: 2 }}>
            <ReadThere
              {...{ detail, live, coats }}
              place={{ name: spot, areaIds: live.areasOf(spot) }}
              state="wet"
              onKept={() => {
                setOpen(null);
                onRead();
              }}
            />
          </Box>
        ) : null}
        {open === 'note' ? <NoteBox jobId={jobId} cells={cells} log={log} onDone={() => setOpen(null)} /> : null}
        {open === 'skip' || open === 'fault' ? (
          <ReasonBox
            kind={open}
            onSay={(reason) => {
              setOpen(null);
              log.tell({ kind: open, checkId: check.id, cells: open === 'fault' ? cells : [], text: reason });
            }}
          />
        ) : null}
      </Box>
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
        <PlaceChoice
          spot={spot}
          open={open}
          toggle={toggle}
          view={view}
          setView={setView}
          views={views}
          live={live}
          detail={detail}
        />
        <VerdictButtons here={here} less={less} more={more} onSay={say} />
        {check.views ? (
          <AfterMend jobId={jobId} log={log} at={at} left={left} live={live} coats={coats} />
        ) : (
          <WhatFollows plan={plan} state={state} log={log} at={at} live={live} />
        )}
        <MoreOrLess open={open} toggle={toggle} state={state} log={log} />
      </Box>
    </Box>
  );
}

/** Effect coats the object gets by the plan and what was told since. */
const plannedOn = (state: StepProps['state'], live: Live): number =>
  Math.max(
    0,
    ...state.areas
      .filter((a) => live.areaIds.includes(a.areaId))
      .map((a) => a.layers.reduce((sum, l) => sum + (live.layerIds.includes(l.layerId) ? l.planned : 0), 0)),
  );

/** What was read of a place at the count that is on, at the target's angles; null where nothing was. */
function newestRead(detail: JobDetail, live: Live, spot: string, coats: number): readonly Lab[] | null {
  const set = detail.spots.findLast((s) => s.label === spot && s.rungCoats === coats);
  const averaged = set ? averageReadings(set.readings) : [];
  const labs = live.count.target.map((t) => averaged.find((a) => angleKey(a) === angleKey(t))?.lab);
  return labs.length && labs.every((l) => l !== undefined) ? labs : null;
}

interface VerdictButtonsProps {
  /** What was said of this place from here at this count. */
  readonly here: Verdict | null;
  readonly less: string;
  readonly more: string;
  readonly onSay: (verdict: Verdict) => void;
}

/** What is seen beside what has to be matched, for gloves. */
function VerdictButtons({ here, less, more, onSay }: VerdictButtonsProps) {
  const { tones } = useTheme();
  const verdict = (v: Verdict, label: string, main = false) => (
    <Button
      variant="outlined"
      aria-pressed={here === v}
      sx={{
        ...TALL,
        ...(main ? { gridColumn: 'span 2', minHeight: 92, fontSize: 26 } : {}),
        ...(here === v ? { outline: `4px solid ${tones.pick}`, outlineOffset: -4 } : {}),
      }}
      onClick={() => onSay(v)}
    >
      {label}
    </Button>
  );
  return (
    <Box role="group" aria-label="What is seen" sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
      {verdict('lighter', `a little ${less}`)}
      {verdict('much lighter', `clearly ${less}`)}
      {verdict('match', 'It matches here', true)}
      {verdict('darker', `a little ${more}`)}
      {verdict('much darker', `clearly ${more}`)}
    </Box>
  );
}
