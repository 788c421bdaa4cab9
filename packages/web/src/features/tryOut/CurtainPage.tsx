import { Box, Button, LinearProgress, Typography } from '@mui/material';
import { tryOutApi, type CurtainSaid } from '@steady-gleam/contracts';
import { FAMILIES, familyTable } from '@steady-gleam/core/finishes';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { Table } from '../../ui/Table';
import { Answer } from '../../shared/Answer';
import { call } from '../../shared/apiClient';
import { Simulated } from '../../shared/devices/Simulated';
import { FlopStrip } from '../../shared/FlopStrip';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { useJob, type PageDetail } from '../../shared/useJob';
import { useJobWork } from '../../shared/useJobWork';
import { sayCurtain, sayFilm } from './curtainModel';
import { FilmAxis } from './FilmAxis';
import { TrueDifferences } from './TrueDifferences';

/** A part takes a second or so; a slow machine some more, ms. */
const PART_WAIT_MS = 60_000;

/** Traces what is behind the curtain part by part, until it is up or left. */
async function traced(id: string, signal: AbortSignal, onShare: (share: number) => void): Promise<CurtainSaid> {
  const params = { id };
  for (let part = 0, parts = 1; part < parts; part++) {
    signal.throwIfAborted();
    ({ parts } = await call(tryOutApi.part, { params, body: { part }, waitMs: PART_WAIT_MS }));
    onShare((part + 1) / parts);
  }
  signal.throwIfAborted();
  return call(tryOutApi.curtain, { params, waitMs: PART_WAIT_MS });
}

/** The end of a try-out: what was hidden, and where it led. */
export function CurtainPage() {
  const detail = useJob();
  const { job } = detail;
  const client = useQueryClient();
  const { state } = useJobWork(detail);
  const params = { id: job.id };
  const isUp = job.tryOut?.lifted ?? false;
  const lift = useMutation({
    mutationFn: () => call(tryOutApi.lift, { params, body: { isSure: true } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  const [share, setShare] = useState(0);
  const curtain = useQuery({
    queryKey: ['curtain', job.id, state.done],
    queryFn: ({ signal }) => traced(job.id, signal, setShare),
    enabled: isUp && job.pick !== null,
    staleTime: Infinity,
    retry: false,
  });
  if (!job.tryOut)
    return <Notice title="There is no curtain here." text="This is a job of the shop’s own, not a try-out." />;
  if (!isUp)
    return (
      <Box sx={{ p: '18px 28px 28px', maxWidth: 900 }}>
        <Answer
          why={
            state.next
              ? 'Once it is up the hand, the pot and the panel are known, and the job is no test any more. It is not sprayed to its end yet.'
              : 'Everything is on. See what your hand really laid, and where counting alone would have ended.'
          }
        >
          {state.next
            ? 'The curtain is down. Finish the job first, then lift it.'
            : 'The job is over: lift the curtain.'}
        </Answer>
        <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mt: 2 }}>
          <Button
            variant={state.next ? 'outlined' : 'contained'}
            disabled={lift.isPending || job.pick === null}
            sx={{ minHeight: 56 }}
            onClick={() => lift.mutate()}
          >
            Lift the curtain
          </Button>
          <Simulated />
        </Box>
        {job.pick === null ? <Typography sx={{ mt: 1 }}>Nothing is picked yet.</Typography> : null}
        {lift.error ? <Typography role="alert">{lift.error.message}</Typography> : null}
      </Box>
    );
  if (curtain.error)
    return (
      <Notice title="The curtain sticks." text={curtain.error.message}>
        <Button variant="contained" onClick={() => void curtain.refetch()}>
          Try again
        </Button>
      </Notice>
    );
  if (!curtain.data)
    return (
      <Box role="status" sx={{ p: '18px 28px' }}>
        <Answer why="Light is followed ray by ray through what really lies on the panel.">Lifting the curtain …</Answer>
        <LinearProgress
          variant="determinate"
          value={100 * share}
          color="inherit"
          aria-label="Tracing"
          sx={{ maxWidth: 480, my: 1 }}
        />
        {curtain.isFetching ? (
          <Button
            variant="text"
            color="inherit"
            sx={{ px: 0.5 }}
            onClick={() => void client.cancelQueries({ queryKey: ['curtain', job.id] })}
          >
            Leave it
          </Button>
        ) : (
          <Button variant="contained" onClick={() => void curtain.refetch()}>
            Trace it
          </Button>
        )}
      </Box>
    );
  return <Behind detail={detail} said={curtain.data} />;
}

function Behind({ detail, said }: { detail: PageDetail; said: CurtainSaid }) {
  const { library } = useLibrary();
  const { job, familyLimits } = detail;
  const { answer, why } = sayCurtain(said);
  const nameOf = (id: string) => library.grounds.find((g) => g.id === id)?.name ?? id;
  const usual = familyTable(FAMILIES[job.family].limits, familyLimits?.own ?? null);
  const rows: readonly (readonly [string, string, string])[] = [
    ['ground', nameOf(said.made.groundId), nameOf(job.pick!.groundId)],
    ['strength of the mix', said.made.strength.toFixed(2), job.pick!.strength.toFixed(2)],
    ['film, nominal coats', sayFilm(said.made.film), said.objects.map((o) => sayFilm(o.film)).join(', ')],
  ];
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Answer why={why}>{answer}</Answer>
      <FilmAxis said={said} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 4, mt: 2 }}>
        {[said.objects[0], said.nominal].map((o) =>
          o && o.film > 0 ? (
            <Box key={o.name}>
              <Typography>the panel above, {o === said.nominal ? 'counted only' : 'yours'} below</Typography>
              <FlopStrip
                angles={FIVE_ANGLES}
                target={said.made.labs}
                sample={o.labs}
                height={130}
                label={`The panel over ${o === said.nominal ? 'the count alone' : 'yours'}, true colours`}
              />
            </Box>
          ) : null,
        )}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '3fr 2fr' }, gap: 5, mt: 3 }}>
        <TrueDifferences said={said} usual={usual} job={job} />
        <Box>
          <Typography variant="h2">Behind the curtain</Typography>
          <Table
            label="What was hidden"
            rows={rows}
            keyOf={([what]) => what}
            columns={[
              { head: '', draw: ([what]) => what },
              { head: 'the other hand', figure: true, draw: ([, other]) => other },
              { head: 'you', figure: true, draw: ([, , own]) => own },
            ]}
          />
          <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mt: 2, flexWrap: 'wrap' }}>
            <Button component={Link} to="/try-out" variant="contained">
              Another try-out
            </Button>
            <Button component={Link} to="/jobs/new" variant="outlined">
              A job of your own
            </Button>
            <Simulated />
          </Box>
        </Box>
      </Box>
    </Box>
  );
}
