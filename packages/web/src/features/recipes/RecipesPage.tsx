import { Box, Button, LinearProgress, Typography, useTheme } from '@mui/material';
import { andControl, countOf, countsControl, STYLES } from '@steady-gleam/core/finishes';
import type { RatedRecipe } from '@steady-gleam/core/matching';
import { findGround, findMix } from '@steady-gleam/core/materials';
import { useEffect, useMemo } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { angleKey } from '../../shared/angles';
import { Unseen } from '../../ui/Unseen';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { pickedCount, pickOf, mixOf, sayCoats, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { useJob } from '../../shared/useJob';
import { NudgePanel } from './NudgePanel';
import { saySearch, searched } from './recipesModel';
import { useSearch } from './useSearch';

/** Which recipes reach the target at all, and which toner mends a card that is off. */
export function RecipesPage() {
  const detail = useJob();
  const { job, target: set, rungs } = detail;
  const { library } = useLibrary();
  const { tones } = useTheme();
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
  const figure = { fontFamily: FIGURES, textAlign: 'right' as const, paddingRight: 14 };

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
        <Box
          component="table"
          aria-label="Recipes no other beats"
          sx={{
            borderCollapse: 'collapse',
            width: '100%',
            '& td, & th': {
              borderBottom: `1px solid ${tones.hairline}`,
              fontWeight: 400,
              textAlign: 'left',
              p: 0,
              height: 56,
            },
            '& th': { height: 34 },
          }}
        >
          <thead>
            <tr>
              <th scope="col" style={{ width: 168, fontSize: 14 }}>
                target over prediction
              </th>
              <th scope="col" style={{ paddingLeft: 14 }}>
                ground
              </th>
              <th scope="col" style={figure}>
                strength
              </th>
              <th scope="col" style={figure}>
                coats
              </th>
              <th scope="col" style={figure}>
                dE00
              </th>
              <th scope="col" style={figure}>
                ends inside
              </th>
              <th scope="col">
                <Unseen>Open</Unseen>
              </th>
            </tr>
          </thead>
          <tbody>
            {found.map((r) => (
              <tr key={JSON.stringify([r.groundId, r.strength, r.coats, r.controlCoats])}>
                <td>
                  <div style={{ display: 'flex', height: 55 }} aria-hidden>
                    {target.map((t, g) => (
                      <div key={angleKey(t)} style={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
                        <div style={{ flex: 1, background: cssOf(target[g]!.lab, exposures[g]) }} />
                        <div style={{ flex: 1, background: cssOf(r.labs[g]!, exposures[g]) }} />
                      </div>
                    ))}
                  </div>
                </td>
                <td style={{ paddingLeft: 14 }}>
                  {findGround(r.groundId, library.grounds).name}
                  {r.controlCoats ? <div style={{ fontSize: 14 }}>{andControl(r.controlCoats).trim()}</div> : null}
                </td>
                <td style={figure}>{Number(r.strength.toFixed(3))}×</td>
                <td style={figure}>{sayCoats(r.coats)}</td>
                <td style={figure}>
                  {r.toleranceRatio <= 1 ? '' : '✕ '}
                  {r.rmsDe.toFixed(2)}
                </td>
                <td style={figure}>{Math.round((1 - r.risk) * 100)} %</td>
                <td style={{ textAlign: 'right' }}>
                  <Button
                    component={Link}
                    to={to(r)}
                    variant="outlined"
                    aria-label={`Put on the map: ${findGround(r.groundId, library.grounds).name}, ${sayCoats(r.coats)} coats at ${r.strength}×`}
                    sx={{ px: 1.25 }}
                  >
                    On the map
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Box>
      ) : null}
    </Bench>
  );
}
