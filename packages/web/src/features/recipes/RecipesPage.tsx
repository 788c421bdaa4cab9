import { Box, Button, LinearProgress, Typography } from '@mui/material';
import { countOf, countsControl, STYLES } from '@steady-gleam/core/finishes';
import type { RatedRecipe } from '@steady-gleam/core/matching';
import { findMix } from '@steady-gleam/core/materials';
import { useEffect, useMemo } from 'react';
import { Link } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { pickedCount, pickOf, mixOf, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { exposuresByAngle } from '../../shared/screenColour';
import { useJob } from '../../shared/useJob';
import { NudgePanel } from './NudgePanel';
import { saySearch, searched } from './recipesModel';
import { useSearch } from './useSearch';
import { RecipeTable } from './RecipeTable';

/** Which recipes reach the target at all, and which toner mends a card that is off. */
export function RecipesPage() {
  const detail = useJob();
  const { job, target: set, rungs } = detail;
  const { library } = useLibrary();
  const target = useMemo(() => targetOf(set, detail), [set, detail]);
  const mix = useMemo(() => mixOf(job), [job]);
  const { found, done, error, took, start, stop } = useSearch();
  const grounds = library.grounds.length;

  useEffect(() => {
    if (target.length) start(mix, target, library);
  }, [start, mix, target, library]);

  if (!target.length) {
    return (
      <Notice title="Read the target first." text="The search looks for ways to reach what you measured.">
        <Button component={Link} to={`/jobs/${job.id}/target`} variant="contained">
          Read the target
        </Button>
      </Notice>
    );
  }
  const said = found
    ? saySearch(found, library)
    : {
        answer: 'Looking for recipes …',
        why: 'Every ground, strength and half coat, with and without a control coat.',
      };
  const to = (r: RatedRecipe) =>
    `/jobs/${job.id}/map?${new URLSearchParams({
      ground: r.groundId,
      coats: String(Math.min(6, countOf(job.family, r))),
      strength: String(r.strength),
      style: mix.style,
      control: String(countsControl(job.family) ? 0 : r.controlCoats),
    }).toString()}`;
  const exposures = found?.length ? exposuresByAngle([target.map((t) => t.lab), ...found.map((r) => r.labs)]) : [];

  return (
    <Bench
      side={
        <NudgePanel
          key={job.id}
          job={job}
          mix={mix}
          groundId={pickOf(job).groundId}
          coats={pickedCount(job)}
          target={target}
          rungs={rungs}
          system={findMix(job.mixId, library.systems)}
        />
      }
    >
      <Answer why={said.why}>{said.answer}</Answer>
      {error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {error}
        </Typography>
      ) : null}
      <Box sx={{ minHeight: 44, display: 'flex', alignItems: 'center', gap: 2, mb: 1 }}>
        {done !== null ? (
          <>
            <LinearProgress
              variant="determinate"
              color="inherit"
              value={(100 * done) / grounds}
              aria-label="Searching"
              sx={{ flex: 1 }}
            />
            <Button variant="outlined" onClick={stop}>
              Stop
            </Button>
          </>
        ) : (
          <>
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {found
                ? `${searched(grounds, job.family).toLocaleString('en')} recipes of ${findMix(job.mixId, library.systems).name.toLowerCase()}, ${STYLES[mix.style].name.toLowerCase()}, looked at${took === null ? '' : ` in ${(took / 1000).toFixed(1)} s`}.`
                : 'The search was stopped.'}
            </Typography>
            {found ? null : (
              <Button variant="outlined" onClick={() => start(mix, target, library)}>
                Search again
              </Button>
            )}
          </>
        )}
      </Box>
      {found?.length ? (
        <Box sx={{ overflowX: 'auto' }}>
          <RecipeTable found={found} target={target} exposures={exposures} to={to} />
        </Box>
      ) : null}
    </Bench>
  );
}
