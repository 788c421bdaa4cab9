import { Box, Button, ThemeProvider, Typography } from '@mui/material';
import { libraryOf } from '@steady-gleam/core/materials';
import { jobState, workOfJob } from '@steady-gleam/core/jobs';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { createSteadyTheme } from '../../app/theme';
import { pickOf } from '../../shared/jobModel';
import type { BoothSnapshot } from '../../shared/log/logStore';
import { eventsOf } from '../../shared/useJobWork';
import { BoothHeader } from '../booth/BoothHeader';
import { BoothSection } from '../booth/BoothSection';
import { TALL } from '../booth/boothStyles';
import { useBooth, type Booth } from '../booth/useBooth';
import { useAwake } from '../booth/useSignals';
import { InspectObject } from './InspectObject';

const sun = createSteadyTheme('sun');

/** Inspecting a job: full screen, for a tablet at the booth door or in the sun; works while the server is away, as the booth does. */
export function InspectPage() {
  const { id = '' } = useParams();
  const booth = useBooth(id, null);
  return (
    <ThemeProvider theme={sun}>
      <Box
        component="main"
        sx={{
          position: 'fixed',
          inset: 0,
          overflowY: 'auto',
          background: sun.tones.page,
          color: sun.tones.ink,
          display: 'flex',
          flexDirection: 'column',
        }}
      >
        {booth.snapshot ? (
          <Inspected booth={booth} snapshot={booth.snapshot} />
        ) : (
          <Box sx={{ m: 'auto', p: 4, textAlign: 'center' }}>
            <Typography variant="h1">
              {booth.failure ? 'The inspection could not be opened.' : 'Opening the inspection …'}
            </Typography>
            {booth.failure ? (
              <>
                <Typography sx={{ mt: 1, mb: 2 }}>
                  {booth.failure} A job that was open in the booth or here before opens without the server too.
                </Typography>
                <Button component={Link} to="/" variant="contained" sx={TALL}>
                  Back to the jobs
                </Button>
              </>
            ) : null}
          </Box>
        )}
      </Box>
    </ThemeProvider>
  );
}

function Inspected({ booth, snapshot }: { booth: Booth; snapshot: BoothSnapshot }) {
  useAwake();
  const { log } = booth;
  const { detail, own, products, guns } = snapshot;
  const { job, card } = detail;
  const library = useMemo(() => libraryOf(own.map((m) => m.material)), [own]);
  const { plan } = useMemo(
    () =>
      workOfJob({
        ...{ job, card, library, pick: pickOf(job) },
        products: products.map((p) => p.product),
        guns: guns.map((g) => g.gun),
      })!,
    [job, card, library, products, guns],
  );
  const { events, refused, own: mine } = log;
  const state = useMemo(
    () => jobState(plan, eventsOf(detail, { events, refused }), (e) => mine.has(e.id)),
    [plan, detail, events, refused, mine],
  );
  const [objectId, setObjectId] = useState(plan.objects[0]!.id);
  const object = plan.objects.find((o) => o.id === objectId) ?? plan.objects[0]!;
  return (
    <>
      <BoothHeader name={job.piece} back={`/jobs/${job.id}/spray`} leave="Back to the job" jobId={job.id} log={log}>
        {plan.objects.length > 1 ? (
          <Box role="group" aria-label="Which object" sx={{ display: 'flex', gap: 1 }}>
            {plan.objects.map((o) => (
              <Button
                key={o.id}
                variant={o.id === object.id ? 'contained' : 'outlined'}
                aria-pressed={o.id === object.id}
                sx={{ minHeight: 56, fontSize: 17 }}
                onClick={() => setObjectId(o.id)}
              >
                {o.name}
              </Button>
            ))}
          </Box>
        ) : null}
      </BoothHeader>
      <BoothSection plan={plan} state={state} />
      <InspectObject
        key={object.id}
        detail={detail}
        plan={plan}
        state={state}
        log={log}
        library={library}
        objectId={object.id}
        onRead={booth.reload}
      />
    </>
  );
}
