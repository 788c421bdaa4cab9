import { Box, Button, Typography } from '@mui/material';

import { type JobPlan, type JobState, sayOn, sayStep } from '@steady-gleam/core/jobs';
import { Link } from 'react-router';
import { ClimateLine } from '../../shared/devices/ClimateLine';
import { FinishButton } from '../../shared/FinishButton';
import type { BoothSnapshot } from '../../shared/log/device';
import type { JobLog } from '../../shared/log/useLog';
import { History } from '../spray/History';
import { BoothHeader } from './BoothHeader';
import { BoothSection } from './BoothSection';
import { BIG, TALL } from './boothStyles';
import { CheckStep } from './CheckStep';
import { CoatStep } from './CoatStep';
import { LookStep } from './LookStep';
import { useRun } from './useRun';
import { useAwake, useSignals, type Signals } from './useSignals';
import { UndoTap } from '../../shared/UndoTap';

/** A run: its film section, the one step that is next, and what comes after. */
export function BoothRun({
  jobId,
  ofCard,
  log,
  snapshot,
  failure,
  reload,
}: {
  jobId: string;
  /** The run of its card. */
  ofCard: boolean;
  log: JobLog;
  snapshot: BoothSnapshot;
  failure: string | null;
  /** Takes the job anew: something of it was kept here. */
  reload: () => void;
}) {
  useAwake();
  const [signals, setSignals] = useSignals();
  const { detail } = snapshot;
  const { job } = detail;
  const { plan, state } = useRun(snapshot, log, ofCard);
  const step = { jobId, plan, state, log };
  const { next } = state;
  return (
    <>
      <BoothHeader
        name={ofCard ? `Card of ${job.piece}` : job.piece}
        back={ofCard ? `/jobs/${jobId}/card` : `/jobs/${jobId}/plan?show=time`}
        jobId={jobId}
        log={log}
        simulated={job.tryOut !== null}
      />
      <Box sx={{ px: 3 }}>
        <ClimateLine large job={job} />
      </Box>
      <BoothSection plan={plan} state={state} told={detail.colours} />
      {next === null ? (
        <OverStep {...step} snapshot={snapshot} ofCard={ofCard} />
      ) : next.is === 'cell' ? (
        <CoatStep
          key={next.state.cell.coatId + next.state.cell.areaId}
          {...step}
          detail={detail}
          at={next.state}
          signals={signals}
        />
      ) : next.state.check.kind === 'look' ? (
        <LookStep key={next.state.check.id} {...step} detail={detail} at={next.state} onRead={reload} />
      ) : (
        <CheckStep key={next.state.check.id} {...step} detail={detail} at={next.state} />
      )}
      <BoothFooter plan={plan} state={state} log={log} failure={failure} signals={signals} onSignals={setSignals} />
    </>
  );
}

/** Every coat is on and every check over. */
function OverStep({
  plan,
  state,
  log,
  snapshot,
  ofCard,
}: {
  plan: JobPlan;
  state: JobState;
  log: JobLog;
  snapshot: BoothSnapshot;
  ofCard: boolean;
}) {
  const effect = plan.rows.find((r) => r.coat.kind === 'effect')?.coat.name ?? 'paint';
  const { job, photos } = snapshot.detail;
  return (
    <Box sx={{ flex: 1, px: 3, pt: 3 }}>
      <Typography component="h1" data-testid="coat" sx={{ ...BIG, fontSize: 58 }}>
        {ofCard ? 'The card is sprayed.' : 'Every coat is on.'}
      </Typography>
      <Typography sx={{ fontSize: 26, mt: 1 }}>
        {ofCard
          ? 'Let it dry, then read its rungs beside what has to be matched: under the clear, in two lights at least.'
          : `${plan.order.length} ${plan.order.length === 1 ? 'area' : 'areas'}. Let it cure as the sheet says, and keep the leftover ${effect} until the job is accepted.`}
      </Typography>
      <Box sx={{ display: 'flex', gap: 1.5, mt: 3 }}>
        {ofCard ? (
          <Button component={Link} to={`/jobs/${job.id}/card`} variant="contained" sx={TALL}>
            Read its rungs
          </Button>
        ) : (
          <>
            <Button component={Link} to={`/jobs/${job.id}/inspect`} variant="contained" sx={TALL}>
              Inspect it
            </Button>
            <FinishButton job={job} run={{ plan, state }} sx={TALL} />
            {job.tryOut ? (
              <Button component={Link} to={`/jobs/${job.id}/curtain`} variant="contained" sx={TALL}>
                Lift the curtain
              </Button>
            ) : null}
          </>
        )}
        <UndoTap {...{ state, log }} sx={TALL} />
      </Box>
      <History plan={plan} state={state} photos={photos} />
    </Box>
  );
}

/** What comes after, how much is on, and what is wrong with the log. */
function BoothFooter({
  plan,
  state,
  log,
  failure,
  signals,
  onSignals,
}: {
  plan: JobPlan;
  state: JobState;
  log: JobLog;
  failure: string | null;
  signals: Signals;
  onSignals: (next: Signals) => void;
}) {
  const at = state.next ? state.steps.findIndex((s) => s.state === state.next!.state) : -1;
  const after = state.steps
    .slice(at + 1)
    .find((s) =>
      s.is === 'cell'
        ? s.state.sprayedAt === null && s.state.leftOut === null
        : s.state.is !== 'passed' && s.state.is !== 'skipped',
    );
  const notes = state.history.filter((e) => e.kind === 'note' || e.kind === 'photo').length;
  const refused = log.refused.length;
  return (
    <Box
      component="footer"
      sx={{
        display: 'flex',
        gap: 2,
        alignItems: 'center',
        px: 3,
        py: 1.5,
        mt: 'auto',
        borderTop: '1px solid',
        borderColor: 'divider',
      }}
    >
      <Typography sx={{ flex: 1, fontSize: 20 }} data-testid="after">
        {at >= 0 && after ? `Then: ${sayStep(plan, after).replace(/\.$/, '')}. ` : ''}
        <span data-testid="on">{sayOn(state)}</span>
        {notes ? ` ${notes} ${notes === 1 ? 'note' : 'notes'}.` : ''}
        {refused
          ? ` ${refused === 1 ? 'One tap was' : `${refused} taps were`} refused and ${refused === 1 ? 'counts' : 'count'} for nothing: ${log.refused[0]!.reason}`
          : ''}
        {failure ? ` ${failure}` : ''}
      </Typography>
      {(['sound', 'voice'] as const).map((s) => (
        <Button
          key={s}
          variant="outlined"
          aria-pressed={signals[s]}
          sx={{ ...TALL, fontSize: 18 }}
          onClick={() => onSignals({ ...signals, [s]: !signals[s] })}
        >
          {s === 'sound' ? 'Sound' : 'Voice'} {signals[s] ? 'on' : 'off'}
        </Button>
      ))}
    </Box>
  );
}
