import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { useParams } from 'react-router';
import { createSteadyTheme } from '../../app/theme';
import type { BoothSnapshot } from '../../shared/log/device';
import { BoothHeader } from '../booth/BoothHeader';
import { BoothSection } from '../booth/BoothSection';
import { FullScreen } from '../booth/FullScreen';
import { useBooth, type Booth } from '../booth/useBooth';
import { useRun } from '../booth/useRun';
import { useAwake } from '../booth/useSignals';
import { InspectObject } from './InspectObject';

const sun = createSteadyTheme('sun');

/** Inspecting a job: full screen, for a tablet at the booth door or in the sun; works while the server is away, as the booth does. */
export function InspectPage() {
  const { id = '' } = useParams();
  const booth = useBooth(id, null);
  return (
    <FullScreen theme={sun} booth={booth} name="The inspection">
      {(snapshot) => <Inspected booth={booth} snapshot={snapshot} />}
    </FullScreen>
  );
}

function Inspected({ booth, snapshot }: { booth: Booth; snapshot: BoothSnapshot }) {
  useAwake();
  const { log } = booth;
  const { detail } = snapshot;
  const { job } = detail;
  const { library, plan, state } = useRun(snapshot, log, false);
  const [objectId, setObjectId] = useState(plan.objects[0]!.id);
  const object = plan.objects.find((o) => o.id === objectId) ?? plan.objects[0]!;
  return (
    <>
      <BoothHeader
        name={job.piece}
        back={`/jobs/${job.id}/spray`}
        leave="Back to the job"
        jobId={job.id}
        log={log}
        simulated={job.tryOut !== null}
      >
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
      <BoothSection plan={plan} state={state} told={detail.colours} />
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
