import { Box, Button, Typography } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { ENOUGH, sayList, type CheckState, enoughTold, extraTold } from '@steady-gleam/core/jobs';
import { LADDER_LAST, labsAt, sayFrom, toLabs, type EyeView } from '@steady-gleam/core/letdown';
import { Link } from 'react-router';
import { FlopStrip } from '../../shared/FlopStrip';
import { countCoats } from '../../shared/jobModel';
import { newId } from '../../shared/newId';
import { type Live } from '../spray/useLive';
import { capital } from '../../shared/capital';
import { advisedAmount, layable, whatFollows } from '../spray/sprayModel';
import { TALL } from './boothStyles';
import type { StepProps } from './stepProps';

/** The target over what was read there, or over what should be seen now; touching. */
export function Seen({ live, read }: { live: Live; read: readonly Lab[] | null }) {
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
export function AfterMend({
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
export function WhatFollows({
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
