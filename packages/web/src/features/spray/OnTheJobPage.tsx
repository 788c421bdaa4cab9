import { Box, Button, Typography } from '@mui/material';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { sayList, sayOn, unseenOf } from '@steady-gleam/core/jobs';
import { LADDER_LAST, labsAt, toLabs } from '@steady-gleam/core/letdown';
import { Link } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { FinishButton } from '../../shared/FinishButton';
import { FlopStrip } from '../../shared/FlopStrip';
import { shopNow } from '../../shared/clock';
import { pickOf, countCoats, mixOf, sayDone } from '../../shared/jobModel';
import { Notice } from '../../shared/Notice';
import { ofObject, useJob } from '../../shared/useJob';
import { timeSaid } from '../../shared/timeOfDay';
import { useJobWork } from '../../shared/useJobWork';
import { PatchGauge } from '../card/PatchGauge';
import { FilmBars } from './FilmBars';
import { History } from './History';
import { LookForm } from './LookForm';
import { SpotList } from './SpotList';
import { SprayedSoFar } from './SprayedSoFar';
import { useLive, type Live } from './useLive';

/** On the object itself: after every coat look, spot by spot, and hear what is left and what can't be taken back. */
export function OnTheJobPage() {
  const page = useJob();
  const work = useJobWork(page);
  const { plan, state, log } = work;
  const object = plan.objects.find((o) => o.id === page.objectId) ?? plan.objects[0]!;
  const detail = ofObject(page, object.id);
  const live = useLive(page, plan, state, object.id);
  const { job, card } = detail;
  const { count } = live;
  if (count.error) return <Notice title="The card could not be worked out." text={count.error} />;
  const unseen = unseenOf(plan, state).find((u) => u.objectId === object.id);
  const finish = <FinishButton job={job} run={{ plan, state }} />;
  if (!card || !live.state || !live.said || !count.card)
    return (
      <>
        <Notice
          title={
            count.target.length && job.pick && card && !count.card ? 'Reading the card …' : 'Spray the card first.'
          }
          text={`What is left to spray follows from the card: its count, its window and your hand. ${sayOn(state)}`}
        >
          <Button component={Link} to={`/jobs/${job.id}/card`} variant="contained">
            Open the card
          </Button>
          {finish}
        </Notice>
        <Box sx={{ px: 3.5 }}>
          <History plan={plan} state={state} photos={detail.photos} />
        </Box>
      </>
    );
  return (
    <Bench
      side={
        <>
          <LookForm detail={detail} live={live} log={log} />
          <Box sx={{ mt: 'auto', display: 'flex', flexDirection: 'column' }}>{finish}</Box>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Effect coats in solvent or two-pack carrier: air-fed respirator and exhaust, no ignition source, as the
            product’s sheet and your local rules say.
          </Typography>
        </>
      }
    >
      <Answer why={live.said.why}>
        {plan.objects.length > 1 ? `${object.name}: ` : ''}
        {live.said.answer}
      </Answer>
      {unseen && !job.done ? (
        <Typography data-testid="unseen" sx={{ mb: 1, maxWidth: '70ch' }}>
          Not to be called matched yet: at what is on now no eye has looked {sayList(unseen.missing)}.
        </Typography>
      ) : null}
      {live.state.spots.some((s) => ['over', 'unlike', 'short'].includes(s.zone)) ? (
        <Typography sx={{ mb: 1 }}>
          <Link to={`/jobs/${job.id}/inspect`} style={{ color: 'inherit' }}>
            The ways out of what is off, each worked out to its end
          </Link>
        </Typography>
      ) : null}
      {job.done ? (
        <Typography role="status" sx={{ mb: 1 }}>
          {sayDone(job.done, (at) => timeSaid(at, shopNow()))}
        </Typography>
      ) : null}
      <SprayedSoFar live={live} work={work} />
      <FilmBars
        state={live.state}
        window={count.card.window.counts}
        best={count.card.best}
        sprayed={live.most}
        inside={count.card.window.inside}
      />
      <Expected live={live} />
      <SpotList detail={detail} live={live} history={state.history} log={log} />
      <History plan={plan} state={state} photos={detail.photos} />
      {FAMILIES[job.family].patches && card.settings.patches ? (
        <PatchGauge mix={mixOf(job)} groundId={pickOf(job).groundId} rungs={card.rungs} />
      ) : null}
    </Bench>
  );
}

/** The target over what should be seen at what is on. */
function Expected({ live }: { live: Live }) {
  const { target, card, advice } = live.count;
  if (!target.length || !card || !live.state) return null;
  // Before anything is on, just what is advised to spray.
  const coats = live.most > 0 ? Number((live.most * live.state.session).toFixed(1)) : Math.max(0.5, advice?.spray ?? 1);
  const film = Math.min(LADDER_LAST, coats);
  return (
    <Box sx={{ mt: 2, maxWidth: 720 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        What it should look like at {countCoats(film)} of the card
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        target above, what should be seen now below
      </Typography>
      <FlopStrip
        angles={target}
        target={target.map((t) => t.lab)}
        sample={toLabs(labsAt(card.ladder, film))}
        height="clamp(150px, 27vh, 300px)"
        label="Target over what should be seen now, from face to flop"
      />
    </Box>
  );
}
