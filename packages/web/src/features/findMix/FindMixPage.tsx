import { Box, Button, Typography } from '@mui/material';
import { jobsApi, readingsApi, type Job, type ReadingSet } from '@steady-gleam/contracts';
import { FAMILIES, FAMILY_IDS, limitAt, type FinishFamily } from '@steady-gleam/core/finishes';
import { averageReadings } from '@steady-gleam/core/formats';
import type { Pourable } from '@steady-gleam/core/formulate';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { USUAL_ANGLES } from '../../shared/angles';
import { Answer } from '../../shared/Answer';
import { call, faultOf } from '../../shared/apiClient';
import { Field } from '../../shared/Field';
import { useLibrary } from '../../shared/library';
import { newId } from '../../shared/newId';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { changeJob } from '../../shared/useJob';
import { askOf, isFound, saySearch } from './findModel';
import { FoundMixes } from './FoundMixes';
import { keepFound } from './keepFound';
import { useFormulate } from './useFormulate';

/** From a reading to mixes of what stands on the shelf. */
export function FindMixPage() {
  const { library } = useLibrary();
  const families = FAMILY_IDS.filter((f) => isFound(f, library));
  const [family, setFamily] = useState<FinishFamily>(families[0]!);
  const [read, setRead] = useState<ReadingSet | null>(null);
  const search = useFormulate();
  const target: TargetAngle[] = averageReadings(read?.readings ?? []).map(({ incidence, aspecular, lab }) => ({
    ...{ incidence, aspecular, lab },
    tolerance: limitAt(aspecular, FAMILIES[family].limits, null),
  }));
  const begin = (of: FinishFamily, set: ReadingSet) => {
    const angles = averageReadings(set.readings).map(({ incidence, aspecular, lab }) => ({
      ...{ incidence, aspecular, lab },
      tolerance: limitAt(aspecular, FAMILIES[of].limits, null),
    }));
    search.start(askOf(of, angles, library));
  };
  const said = read
    ? saySearch(search, target, library)
    : {
        answer: 'Read it, and see which of what stands on the shelf makes it.',
        why: 'Every pair of effect pigments and every pair of dyes over every ground of the shop is looked at; what is found is rounded to what a scale shows and looked at again.',
      };
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Answer why={said.why}>{said.answer}</Answer>
      <Box sx={{ width: 280, mb: 2 }}>
        <Field
          label="Family"
          select
          value={family}
          onChange={(e) => {
            const next = e.target.value as FinishFamily;
            setFamily(next);
            if (read) begin(next, read);
          }}
        >
          {families.map((f) => (
            <option key={f} value={f}>
              {FAMILIES[f].name}
            </option>
          ))}
        </Field>
      </Box>
      {read ? null : (
        <ReadingsForm
          kind="target"
          rungCoats={null}
          angles={USUAL_ANGLES}
          saveLabel="Find the mix"
          onSave={async (set) => {
            setRead(set);
            begin(family, set);
            return Promise.resolve();
          }}
        />
      )}
      {read ? (
        <FoundMixes
          {...{ search, target }}
          again={
            <>
              <Button variant="outlined" onClick={() => begin(family, read)}>
                Look again
              </Button>
              <Button variant="text" color="inherit" onClick={() => setRead(null)}>
                Another reading
              </Button>
            </>
          }
          action={(mix) => <BeginJob {...{ mix, family, read }} />}
        />
      ) : null}
    </Box>
  );
}

/** A job begun with a mix that was found, and its map. */
function BeginJob({ mix, family, read }: { mix: Pourable; family: FinishFamily; read: ReadingSet }) {
  const { library } = useLibrary();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [piece, setPiece] = useState<string | null>(null);
  const begin = useMutation({
    mutationFn: async (called: string): Promise<Job> => {
      const { mixId, pick } = await keepFound(family, mix, library, called);
      const job = (await call(jobsApi.create, {
        body: {
          ...{ id: newId(), piece: called, matching: 'what was read', family, mixId },
          ...{ finishId: null, coats: null, target: null },
        },
      })) as Job;
      await call(readingsApi.addToFinish, { params: { id: job.finishId }, body: read });
      await changeJob(job.id, { version: job.version, pick });
      return job;
    },
    onSuccess: async (job) => {
      await client.invalidateQueries();
      await navigate(`/jobs/${job.id}/map`);
    },
  });
  return piece === null ? (
    <Button variant="outlined" onClick={() => setPiece('')}>
      Begin a job with it
    </Button>
  ) : (
    <Box sx={{ width: 230 }}>
      <Field label="Piece" autoFocus value={piece} onChange={(e) => setPiece(e.target.value)} />
      <Button
        variant="contained"
        sx={{ mt: 1 }}
        disabled={!piece.trim() || begin.isPending}
        onClick={() => begin.mutate(piece.trim())}
      >
        To the map
      </Button>
      {begin.error ? <Typography role="alert">{faultOf(begin.error)}</Typography> : null}
    </Box>
  );
}
