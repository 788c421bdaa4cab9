import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { type JobPlan, type JobState, type SeenSpot } from '@steady-gleam/core/jobs';
import { EYE_VIEWS, isPeelWord } from '@steady-gleam/core/letdown';
import type { Library } from '@steady-gleam/core/materials';
import { mendTold, type Moment, type WayOut } from '@steady-gleam/core/recovery';
import { useState } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { FlopStrip } from '../../shared/FlopStrip';
import type { JobLog } from '../../shared/log/useLog';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { sayMinutes } from '../../shared/timeOfDay';
import { useUnits } from '../../shared/units';
import { TALL } from '../booth/boothStyles';
import type { Live } from '../spray/useLive';
import { sayOff, sayRead, VIEW_NAMES, viewsAfter, type Place } from './inspectModel';
import { FadedProfile } from './FadedProfile';
import { NudgeBox } from './NudgeBox';
import { useWays } from './useWays';

/** How wide a place is where nobody said, cm; ours. */
const USUAL_CM = 20;

/** The ways out there are now for one place, each worked out to its end; the chosen one becomes steps of the run. */
export function WaysPanel({
  detail,
  plan,
  state,
  live,
  log,
  library,
  moment,
  place,
}: {
  detail: JobDetail;
  plan: JobPlan;
  state: JobState;
  live: Live;
  log: JobLog;
  library: Library;
  moment: Moment | null;
  place: (Place & { readonly looks: readonly SeenSpot[] }) | null;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job } = detail;
  const [across, setAcross] = useState('');
  const [atEdge, setAtEdge] = useState(/edge|nose|rim|lip|tail/i.test(place?.name ?? ''));
  const [picked, setPicked] = useState<WayOut['kind'] | null>(null);
  const typed = numberIn(across);
  const acrossCm = across.trim() ? typed : USUAL_CM;
  const good = acrossCm >= 1 && acrossCm <= 500;
  const spot = live.state?.spots.find((s) => s.spot === place?.name) ?? null;
  const off = place ? sayOff(job.family, place.looks) || sayRead(spot) : '';
  const ways = useWays(plan, state, live, {
    ...{ mixId: job.mixId, moment, looks: place?.looks ?? [], off, atEdge, texture: job.texture },
    place: good ? place : null,
    acrossCm: good ? acrossCm : USUAL_CM,
  });
  // A mend is run to its look first; at the look another way out may be chosen.
  const { next } = state;
  const here = (areaIds: readonly string[]) => areaIds.some((a) => live.areaIds.includes(a));
  const under =
    next?.is === 'cell'
      ? next.state.isExtra && here([next.state.cell.areaId])
      : next?.is === 'check' && !!next.state.check.spot && !next.state.check.views && here(next.state.check.areaIds);
  const mending = state.history.findLast((e) => e.kind === 'mend') ?? null;
  if (under) return <UnderWay jobId={job.id} what={mending?.text ?? null} />;
  if (!place || !spot || !off)
    return (
      <NoWays
        why={
          !live.state
            ? 'No card of this finish was read: what a coat does there can’t be worked out. What is seen is kept all the same.'
            : place && spot?.zone === 'again'
              ? `Coats went on ${place.name} since. Look there first.`
              : 'Nothing is off where you looked. A place that is gets its ways out here, each with what it comes to.'
        }
      />
    );
  const chosen = ways?.find((w) => w.kind === picked) ?? ways?.[0] ?? null;
  const choose = (way: WayOut) => {
    if (way.kind === 'leave') {
      log.tell({
        kind: 'note',
        cells: place.areaIds.map((areaId) => ({ coatId: '', areaId })),
        text: `${place.name} is left as it is: ${off}`,
      });
      return;
    }
    log.tell(
      mendTold(
        state,
        way.areaIds,
        { way: way.kind, spot: place.name, off: off.slice(0, 120), views: viewsAfter(place.looks), steps: way.steps },
        way.name,
      ),
    );
  };
  return (
    <>
      <Typography variant="h2">Ways out for {place.name}</Typography>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'flex-end', my: 1 }}>
        <Box sx={{ width: 150 }}>
          <MeasureField
            measure="distance"
            label="How wide it is"
            value={across}
            onValue={setAcross}
            error={good ? undefined : `Between ${units.say('distance', 1)} and ${units.say('distance', 500)}.`}
            hint={across.trim() ? '' : `empty: ${units.say('distance', USUAL_CM)}`}
          />
        </Box>
        <Button
          variant="outlined"
          aria-pressed={atEdge}
          sx={{ minHeight: 48, mb: '22px', ...(atEdge ? { background: tones.ink, color: tones.page } : {}) }}
          onClick={() => setAtEdge(!atEdge)}
        >
          at an edge
        </Button>
      </Box>
      {ways === null ? <Typography>Working the ways out …</Typography> : null}
      <Box role="group" aria-label="Ways out" sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
        {ways?.map((w) => (
          <WayCard key={w.kind} way={w} live={live} isOpen={w === chosen} onOpen={() => setPicked(w.kind)} />
        ))}
      </Box>
      {place.looks.some((l) => l.hue && !isPeelWord(l.hue)) ? (
        <NudgeBox {...{ detail, plan, state, live, log, library, place, moment }} />
      ) : null}
      {chosen ? (
        <Button variant="contained" sx={{ ...TALL, width: '100%', mt: 1.5 }} onClick={() => choose(chosen)}>
          {chosen.kind === 'leave' ? 'Leave it, and say so' : 'Put it into the run'}
        </Button>
      ) : null}
      <Typography variant="body2" sx={{ mt: 1, borderLeft: `4px solid ${tones.danger}`, pl: 1 }}>
        Sanding: dust mask, wet where it can be; old paint may hold lead or chromate. Two-pack: air-fed respirator,
        exhaust on. The sheet and local rules come first.
      </Typography>
    </>
  );
}

/** One way out: closed its name and how it ends, open all it comes to. */
function WayCard({ way, live, isOpen, onOpen }: { way: WayOut; live: Live; isOpen: boolean; onOpen: () => void }) {
  const { tones } = useTheme();
  const units = useUnits();
  const target = live.count.answer!.card.sought.read.angles;
  const ends = way.chances
    ? `${way.promise === 'even' ? 'ends even' : 'ends inside'} in ${Math.round(way.chances.in * 100)} of 100`
    : way.unsaid;
  const line = (name: string, value: string) => (
    <Box
      sx={{
        display: 'flex',
        justifyContent: 'space-between',
        gap: 1,
        borderTop: `1px solid ${tones.hairline}`,
        py: 0.5,
      }}
    >
      <span>{name}</span>
      <Box component="span" sx={{ fontFamily: FIGURES, textAlign: 'right' }}>
        {value}
      </Box>
    </Box>
  );
  const { cost } = way;
  return (
    <Box
      component="section"
      aria-label={way.name}
      sx={{
        background: isOpen ? tones.raised : 'none',
        border: `1px solid ${tones.hairline}`,
        outline: isOpen ? `4px solid ${tones.pick}` : 'none',
        outlineOffset: -3,
        p: 1.25,
      }}
    >
      <Button
        variant="text"
        color="inherit"
        aria-expanded={isOpen}
        sx={{
          p: 0,
          minHeight: 48,
          justifyContent: 'flex-start',
          textAlign: 'left',
          width: '100%',
          lineHeight: 1.15,
          display: 'block',
        }}
        onClick={onOpen}
      >
        <b>{way.name}</b>
        <Box component="span" sx={{ display: 'block', fontWeight: 400, fontSize: 15 }}>
          {ends}
        </Box>
      </Button>
      {isOpen ? (
        <>
          <Typography sx={{ mb: 0.75 }}>
            {way.how} {way.stop ? `${way.stop}.` : ''}
          </Typography>
          <FlopStrip
            angles={target}
            target={target.map((t) => t.lab)}
            sample={way.labs}
            height={84}
            label="What has to be matched above, what it will look like below"
          />
          {line('dE00 by angle', way.differences.map((d) => d.toFixed(1)).join(' '))}
          {line(
            'still told',
            way.seen.length === EYE_VIEWS.length
              ? 'from everywhere'
              : way.seen.length
                ? way.seen.map((v) => VIEW_NAMES[v]).join('; ')
                : 'from nowhere',
          )}
          {cost.coats
            ? line('coats, mix, time', `${cost.coats}, ${units.say('volume', cost.ml)}, ${sayMinutes(cost.minutes)}`)
            : null}
          <Typography variant="body2" sx={{ borderTop: `1px solid ${tones.hairline}`, pt: 0.5 }}>
            <b>Puts at risk:</b> {way.risk} <b>Back:</b> {way.back}
          </Typography>
          {way.faded ? <FadedProfile plan={way.faded} /> : null}
        </>
      ) : null}
    </Box>
  );
}

/** A mend that was chosen, before its look. @param what it is called; null where that is not known */
function UnderWay({ jobId, what }: { readonly jobId: string; readonly what: string | null }) {
  return (
    <>
      <Typography variant="h2">A mend is under way</Typography>
      <Typography sx={{ fontSize: 17, my: 1 }}>
        {what === null ? '' : `${what}. `}It is run in the booth, step by step, and looked at again.
      </Typography>
      <Button component={Link} to={`/jobs/${jobId}/booth`} variant="contained" sx={{ ...TALL, width: '100%' }}>
        Run it in the booth
      </Button>
    </>
  );
}

/** No way out is told: why, and where faults of another kind are. */
function NoWays({ why }: { readonly why: string }) {
  return (
    <>
      <Typography variant="h2">Ways out</Typography>
      <Typography sx={{ fontSize: 17, mt: 1 }}>{why}</Typography>
      <Typography sx={{ mt: 1.5 }}>
        A speck, a run, a cloud?{' '}
        <Link to="/faults" style={{ color: 'inherit' }}>
          Faults by picture
        </Link>
      </Typography>
    </>
  );
}
