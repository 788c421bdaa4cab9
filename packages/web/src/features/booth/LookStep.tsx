import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import type { Lab } from '@steady-gleam/core/colour';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { averageReadings } from '@steady-gleam/core/formats';
import {
  ENOUGH,
  sayCheckOf,
  sayList,
  unseenOf,
  type CheckState,
  enoughTold,
  extraTold,
  type JobState,
} from '@steady-gleam/core/jobs';
import { LADDER_LAST, labsAt, sayFrom, toLabs, viewsOf, type EyeView, type Verdict } from '@steady-gleam/core/letdown';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { Link } from 'react-router';
import { angleKey } from '../../shared/angles';
import { FlopStrip } from '../../shared/FlopStrip';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { newId } from '../../shared/newId';
import { ReadThere } from '../spray/ReadThere';
import { useLive, type Live } from '../spray/useLive';
import { advisedAmount, capital, layable, whatFollows } from '../spray/sprayModel';
import { FoundFault } from '../faults/FoundFault';
import { BIG, STEP, TALL } from './boothStyles';
import type { StepProps } from './CoatStep';
import { NoteBox, TextLine } from './NoteBox';
import { ReasonBox } from './ReasonBox';
import type { JobLog } from '../../shared/log/useLog';

const SMALL = { minHeight: 72, fontSize: 18, px: 1.25, lineHeight: 1.1 } as const;

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
  const { tones } = useTheme();
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
  const verdict = (v: Verdict, label: string, main = false) => (
    <Button
      variant="outlined"
      aria-pressed={here === v}
      sx={{
        ...TALL,
        ...(main ? { gridColumn: 'span 2', minHeight: 92, fontSize: 26 } : {}),
        ...(here === v ? { outline: `4px solid ${tones.pick}`, outlineOffset: -4 } : {}),
      }}
      onClick={() => say(v)}
    >
      {label}
    </Button>
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
        <Box role="group" aria-label="What is seen" sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
          {verdict('lighter', `a little ${less}`)}
          {verdict('much lighter', `clearly ${less}`)}
          {verdict('match', 'It matches here', true)}
          {verdict('darker', `a little ${more}`)}
          {verdict('much darker', `clearly ${more}`)}
        </Box>
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

/** The target over what was read there, or over what should be seen now; touching. */
function Seen({ live, read }: { live: Live; read: readonly Lab[] | null }) {
  const { target, card } = live.count;
  if (target.length && read)
    return (
      <Box sx={{ mt: 1.5, maxWidth: 720 }}>
        <Typography sx={{ fontSize: 18 }}>target above, what was read here below</Typography>
        <FlopStrip
          angles={target}
          target={target.map((t) => t.lab)}
          sample={toLabs(read.flat())}
          height={170}
          label="Target over what was read"
        />
      </Box>
    );
  if (!target.length || !card || !live.state) return null;
  const film = Math.min(LADDER_LAST, live.most * live.state.session);
  return (
    <Box sx={{ mt: 1.5, maxWidth: 720 }}>
      <Typography sx={{ fontSize: 18 }}>target above, what should be seen now below</Typography>
      <FlopStrip
        angles={target}
        target={target.map((t) => t.lab)}
        sample={toLabs(labsAt(card.ladder, film))}
        height={170}
        label={`Target over what should be seen at ${countCoats(Number(film.toFixed(1)))}`}
      />
    </Box>
  );
}

/** After a mend: on when it was looked at from everywhere it has to be; its ways out where it is still off. */
function AfterMend({
  jobId,
  log,
  at,
  left,
  live,
  coats,
}: Pick<StepProps, 'jobId' | 'log'> & { at: CheckState; left: readonly EyeView[]; live: Live; coats: number }) {
  const off = live.seen.some(
    (s) => s.coats === coats && s.spot === at.check.spot && s.verdict !== null && s.verdict !== 'match',
  );
  const big = { ...TALL, minHeight: 88, fontSize: 20, lineHeight: 1.15 } as const;
  return (
    <Box role="group" aria-label="What follows" sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
      <Button
        variant={off ? 'outlined' : 'contained'}
        disabled={left.length > 0}
        sx={big}
        onClick={() => log.tell({ kind: 'check', checkId: at.check.id })}
      >
        {left.length ? `Look ${sayList(left.map(sayFrom))} too` : off ? 'Leave it so: go on' : 'Mended: go on'}
      </Button>
      <Button component={Link} to={`/jobs/${jobId}/inspect`} variant={off ? 'contained' : 'outlined'} sx={big}>
        Other ways out
      </Button>
    </Box>
  );
}

/** What is done after the look: on as planned, a half in its place, or enough. */
function WhatFollows({
  plan,
  state,
  log,
  at,
  live,
}: Pick<StepProps, 'plan' | 'state' | 'log'> & { at: CheckState; live: Live }) {
  const passed = { kind: 'check' as const, checkId: at.check.id };
  const areas = plan.areas.filter((a) => a.objectId === at.check.objectId).map((a) => a.id);
  const left = enoughTold(state, live.layerIds, areas, ENOUGH);
  // What the advice says can be laid; where it says nothing, half a coat is offered.
  const amount = advisedAmount(live.state, live.most, live.count.advice?.spray ?? null);
  const says = live.state !== null && amount !== null && amount > 0;
  const step = layable(says && (!left.length || whatFollows(amount) === 'less') ? amount : 0.5);
  const half = extraTold(state, live.layerIds, at.check.areaIds, step.coats, false, newId, step.letDown !== null);
  // The one the advice comes to is the pick; where it advises none, none is.
  // Nothing is planned any more: what is advised is more than the plan, or it is gone on.
  const advised = left.length ? whatFollows(amount) : says ? 'less' : 'one';
  const kind = (what: 'one' | 'less' | 'enough') => ({
    variant: advised === what ? ('contained' as const) : ('outlined' as const),
    sx: { ...TALL, minHeight: 88, fontSize: 20, lineHeight: 1.15 },
  });
  return (
    <Box role="group" aria-label="What follows" sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1 }}>
      <Button {...kind('one')} onClick={() => log.tell(passed)}>
        {left.length ? 'One coat more, as planned' : 'Looked: go on'}
      </Button>
      <Button {...kind('less')} disabled={!half.length} onClick={() => log.tell(...left, ...half, passed)}>
        {capital(step.said)} {left.length ? 'instead' : 'more'}
      </Button>
      <Button {...kind('enough')} disabled={!left.length} onClick={() => log.tell(...left, passed)}>
        Enough: go on
      </Button>
    </Box>
  );
}

interface PlaceChoiceProps {
  readonly spot: string;
  readonly open: 'spot' | 'note' | 'fault' | 'skip' | 'read' | null;
  readonly toggle: (what: 'spot' | 'note' | 'fault' | 'skip' | 'read' | null) => void;
  readonly view: EyeView;
  readonly setView: Dispatch<SetStateAction<EyeView>>;
  readonly views: readonly EyeView[];
  readonly live: ReturnType<typeof useLive>;
  readonly detail: JobDetail;
}

/** Which place is looked at. */
function PlaceChoice({ spot, open, toggle, view, setView, views, live, detail }: PlaceChoiceProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
      <Button
        variant="outlined"
        aria-label={`On ${spot}: another spot`}
        aria-expanded={open === 'spot'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('spot')}
      >
        {spot}
      </Button>
      <Button
        variant="outlined"
        aria-label={`Seen ${view}: another`}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => setView(views[(views.indexOf(view) + 1) % views.length]!)}
      >
        {view}
      </Button>
      <Typography sx={{ fontSize: 19, flex: 1, lineHeight: 1.2 }}>against what has to be matched it is</Typography>
      {live.count.target.length ? (
        <Button
          variant={detail.job.tryOut && open !== 'read' ? 'contained' : 'outlined'}
          aria-expanded={open === 'read'}
          sx={{ ...TALL, ...SMALL }}
          onClick={() => toggle('read')}
        >
          Read it
        </Button>
      ) : null}
    </Box>
  );
}

interface MoreOrLessProps {
  readonly open: 'spot' | 'skip' | 'fault' | 'note' | 'read' | null;
  readonly toggle: (what: 'spot' | 'skip' | 'fault' | 'note' | 'read' | null) => void;
  readonly state: JobState;
  readonly log: JobLog;
}

/** A coat more, a half, or enough. */
function MoreOrLess({ open, toggle, state, log }: MoreOrLessProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 1 }}>
      <Button
        variant="outlined"
        aria-expanded={open === 'note'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('note')}
      >
        Note, photo
      </Button>
      <Button
        variant="outlined"
        aria-expanded={open === 'fault'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('fault')}
      >
        A fault
      </Button>
      <Button
        variant="outlined"
        aria-expanded={open === 'skip'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('skip')}
      >
        Leave it out
      </Button>
      <Button
        variant="outlined"
        disabled={!state.undoable}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => log.tell({ kind: 'undo', text: state.undoable!.id })}
      >
        Undo
      </Button>
    </Box>
  );
}
