import { Box, Button, LinearProgress, Typography, useTheme } from '@mui/material';
import { jobsApi, materialsApi, readingsApi, type Job, type ReadingSet } from '@steady-gleam/contracts';
import { FAMILIES, FAMILY_IDS, limitAt, type FinishFamily } from '@steady-gleam/core/finishes';
import { averageReadings } from '@steady-gleam/core/formats';
import type { Pourable } from '@steady-gleam/core/formulate';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { FIGURES } from '../../app/theme';
import { USUAL_ANGLES } from '../../shared/angles';
import { Answer } from '../../shared/Answer';
import { call, faultOf } from '../../shared/apiClient';
import { Field } from '../../shared/Field';
import { FlopStrip } from '../../shared/FlopStrip';
import { sayCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { newId } from '../../shared/newId';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { familyAsks, isFound, sayFound, systemOf } from './findModel';
import { useFormulate } from './useFormulate';

/** Counts that are advised. */
const COUNTS = [1.5, 2, 2.5, 3, 4];

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
    const { mostPigments, mostDyes, filmUm, style } = familyAsks(of, library);
    const angles = averageReadings(set.readings).map(({ incidence, aspecular, lab }) => ({
      ...{ incidence, aspecular, lab },
      tolerance: limitAt(aspecular, FAMILIES[of].limits, null),
    }));
    search.start({ target: angles, style, filmUm, mostPigments, mostDyes, counts: COUNTS });
  };
  const { found, step, error, tookS } = search;
  const said = !read
    ? {
        answer: 'Read it, and see which of what stands on the shelf makes it.',
        why: 'Every pair of effect pigments and every pair of dyes over every ground of the shop is looked at; what is found is rounded to what a scale shows and looked at again.',
      }
    : found
      ? sayFound(found.mixes[0], target, library)
      : step
        ? {
            answer: step.best ? `Best so far ${step.best.maxDe.toFixed(1)} dE00 off at its worst angle.` : 'Looking …',
            why: `${Math.round(100 * step.done)} % of the shelf was looked at.`,
          }
        : { answer: 'The search was stopped.', why: 'Begin it again, or read it again.' };
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
      {step ? (
        <Box role="status" sx={{ maxWidth: 620 }}>
          {step.best ? (
            <FlopStrip
              angles={target}
              target={target.map((t) => t.lab)}
              sample={step.best.labs}
              height={110}
              label="Target over the best so far"
            />
          ) : null}
          <LinearProgress
            variant="determinate"
            value={100 * step.done}
            color="inherit"
            aria-label="Looking through the shelf"
            sx={{ my: 1 }}
          />
          <Button variant="text" color="inherit" onClick={search.stop} sx={{ px: 0.5 }}>
            Stop
          </Button>
        </Box>
      ) : null}
      {error ? <Typography role="alert">{error}</Typography> : null}
      {read && !step ? (
        <Box sx={{ display: 'flex', gap: 1.5, mb: 1.5, alignItems: 'center' }}>
          <Button variant="outlined" onClick={() => begin(family, read)}>
            Look again
          </Button>
          <Button variant="text" color="inherit" onClick={() => setRead(null)}>
            Another reading
          </Button>
          {tookS === null ? null : (
            <Typography variant="body2">looked through the shelf in {tookS.toFixed(1)} s</Typography>
          )}
        </Box>
      ) : null}
      {read && found ? (
        <Box component="ol" aria-label="Mixes" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {found.mixes.map((mix) => (
            <MixRow
              key={`${mix.groundId}/${mix.coats}/${JSON.stringify(mix.parts)}`}
              {...{ mix, target, family, read }}
            />
          ))}
        </Box>
      ) : null}
    </Box>
  );
}

/** A mix: its strip under the target's, what is poured, and a job begun with it. */
function MixRow({
  mix,
  target,
  family,
  read,
}: {
  mix: Pourable;
  target: readonly TargetAngle[];
  family: FinishFamily;
  read: ReadingSet;
}) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [piece, setPiece] = useState<string | null>(null);
  const nameOf = (id: string) =>
    [...library.pigments, ...library.dyes, ...library.grounds].find((m) => m.id === id)?.name ?? id;
  const begin = useMutation({
    mutationFn: async (called: string): Promise<Job> => {
      const of = familyAsks(family, library);
      const mixId = newId();
      const material = systemOf(mixId, `Mix for ${called}`.slice(0, 60), family, mix, of);
      await call(materialsApi.put, { params: { id: mixId }, body: { version: 0, material } as never });
      const job = (await call(jobsApi.create, {
        body: {
          ...{ id: newId(), piece: called, matching: 'what was read', family, mixId },
          ...{ finishId: null, coats: null, target: null },
        },
      })) as Job;
      await call(readingsApi.addToFinish, { params: { id: job.finishId }, body: read });
      const pick = { groundId: mix.groundId, strength: 1, style: of.style, coats: mix.coats, controlCoats: 0 };
      await call(jobsApi.change, { params: { id: job.id }, body: { version: job.version, pick } as never });
      return job;
    },
    onSuccess: async (job) => {
      await client.invalidateQueries();
      await navigate(`/jobs/${job.id}/map`);
    },
  });
  return (
    <Box
      component="li"
      sx={{
        ...{ display: 'grid', gridTemplateColumns: '300px minmax(0, 1fr) auto', gap: 3, alignItems: 'center' },
        borderTop: `1px solid ${tones.hairline}`,
        py: 1.25,
      }}
    >
      <FlopStrip
        angles={target}
        target={target.map((t) => t.lab)}
        sample={mix.labs}
        height={84}
        label={`Target over ${nameOf(mix.groundId)}, ${sayCoats(mix.coats)} coats`}
      />
      <Box>
        <Typography variant="h2" component="div">
          {sayCoats(mix.coats)} coats over {nameOf(mix.groundId).toLowerCase()}
        </Typography>
        <Typography sx={{ fontFamily: FIGURES }}>
          100 carrier{mix.parts.map((p) => ` : ${p.parts} ${nameOf(p.id).toLowerCase()}`)}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {mix.maxDe.toFixed(1)} dE00 at its worst angle, {mix.rmsDe.toFixed(1)} over all;{' '}
          {mix.window
            ? `passes from ${mix.window[0].toFixed(1)} to ${mix.window[1].toFixed(1)} coats`
            : 'passes at no count'}
          ; {mix.cans} cans; rounding moved it by {mix.rounded.toFixed(2)}
        </Typography>
        {begin.error ? <Typography role="alert">{faultOf(begin.error)}</Typography> : null}
      </Box>
      {piece === null ? (
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
        </Box>
      )}
    </Box>
  );
}
