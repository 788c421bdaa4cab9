import { Button, Typography } from '@mui/material';
import type { Pourable } from '@steady-gleam/core/formulate';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link, useNavigate } from 'react-router';
import { Answer } from '../../shared/Answer';
import { faultOf } from '../../shared/apiClient';
import { Bench } from '../../shared/Bench';
import { FlopStrip } from '../../shared/FlopStrip';
import { targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { newId } from '../../shared/newId';
import { changeJob, useJob } from '../../shared/useJob';
import { FoundMixes } from './FoundMixes';
import { BeginJob } from './BeginJob';
import { askOf, isFound, saySearch } from './findModel';
import { withFound } from './keepFound';
import { useFormulate } from './useFormulate';

/** Mixes of the shelf for what a job has to match, however that was read: one becomes the finish's mix. */
export function FindForJobPage() {
  const detail = useJob();
  const { job, target: set, about } = detail;
  const { library } = useLibrary();
  const search = useFormulate();
  const { start } = search;
  const target = targetOf(set, detail);
  // What a card or a coat was sprayed of keeps its mix.
  const isTold = detail.events.some((e) => e.kind === 'sprayed');
  const isSprayed = detail.card !== null || isTold;
  const can = target.length > 0 && isFound(job.family, library);
  const key = can ? JSON.stringify(askOf(job.family, target, library)) : null;
  const look = () => start(askOf(job.family, target, library));
  useEffect(() => {
    if (key !== null) start(JSON.parse(key) as ReturnType<typeof askOf>);
  }, [key, start]);
  const said = !set
    ? {
        answer: 'Nothing was read yet.',
        why: 'Read what has to be matched first, with an instrument, from a photo or by a chip.',
      }
    : !can
      ? {
          answer: 'Mixes of this family are not looked for.',
          why: 'Its colour is the grains’ own, or solid pigments’.',
        }
      : saySearch(search, target, library);
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">The target, face to flop</Typography>
          {target.length ? (
            <FlopStrip
              angles={target}
              target={target.map((t) => t.lab)}
              height={150}
              label="Target colours from face to flop"
            />
          ) : null}
          <Typography>
            {isSprayed
              ? `${isTold ? 'Coats of this job’s own mix were told' : 'The card was begun with this job’s own mix'}, so it keeps it: a mix that is found begins a job of its own, with the same target.`
              : 'A mix that is taken stands under Materials from then on, and on the map of this job with its ground and count.'}
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            Mix half of the colours first, and spray a card: the card has the last word.
          </Typography>
          <Button component={Link} to={`/jobs/${job.id}/target`} variant="outlined" sx={{ mt: 'auto' }}>
            Back to the target
          </Button>
        </>
      }
    >
      <Answer why={said.why}>{said.answer}</Answer>
      {can ? (
        <FoundMixes
          {...{ search, target }}
          again={
            <Button variant="outlined" onClick={look}>
              Look again
            </Button>
          }
          action={(mix) =>
            isSprayed ? (
              <BeginJob mix={mix} family={job.family} read={{ ...set!, id: newId(), objectId: null }} />
            ) : (
              <TakeMix mix={mix} finishId={about} />
            )
          }
        />
      ) : null}
    </Bench>
  );
}

/** The mix becomes the finish's. */
function TakeMix({ mix, finishId }: { mix: Pourable; finishId: string | undefined }) {
  const { job } = useJob();
  const { library } = useLibrary();
  const navigate = useNavigate();
  const client = useQueryClient();
  const take = useMutation({
    mutationFn: async () => {
      await withFound({ family: job.family, mix, library, piece: job.piece }, ({ mixId, pick }) =>
        changeJob(job.id, { version: job.version, mixId, pick, ...(finishId ? { finishId } : {}) }),
      );
    },
    onSuccess: async () => {
      await client.invalidateQueries();
      await navigate(`/jobs/${job.id}/map`);
    },
  });
  return (
    <div>
      <Button variant="outlined" disabled={take.isPending} onClick={() => take.mutate()}>
        Take this mix
      </Button>
      {take.error ? (
        <Typography role="alert" variant="body2" sx={{ width: 200, mt: 0.5 }}>
          {faultOf(take.error)}
        </Typography>
      ) : null}
    </div>
  );
}
