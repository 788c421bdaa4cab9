import { Box, Button, LinearProgress, Typography, useTheme } from '@mui/material';
import type { Pourable } from '@steady-gleam/core/formulate';
import type { TargetAngle } from '@steady-gleam/core/matching';
import type { ReactNode } from 'react';
import { FIGURES } from '../../app/theme';
import { FlopStrip } from '../../shared/FlopStrip';
import { sayCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import type { Formulating } from './useFormulate';

/** How far the search is with its best so far, and what it found. @param action what can be done with a mix */
export function FoundMixes({
  search,
  target,
  again,
  action,
}: {
  search: Formulating & { readonly stop: () => void };
  target: readonly TargetAngle[];
  /** Beside what was found: to look once more, or for another reading. */
  again: ReactNode;
  action: (mix: Pourable) => ReactNode;
}) {
  const { step, found, error, tookS } = search;
  return (
    <>
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
      {step ? null : (
        <Box sx={{ display: 'flex', gap: 1.5, mb: 1.5, alignItems: 'center' }}>
          {again}
          {tookS === null ? null : (
            <Typography variant="body2">looked through the shelf in {tookS.toFixed(1)} s</Typography>
          )}
        </Box>
      )}
      {found && !step ? (
        <Box component="ol" aria-label="Mixes" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {found.mixes.map((mix) => (
            <MixRow
              key={`${mix.groundId}/${mix.coats}/${JSON.stringify(mix.parts)}`}
              {...{ mix, target }}
              action={action(mix)}
            />
          ))}
        </Box>
      ) : null}
    </>
  );
}

/** A mix: its strip under the target's, what is poured, and what can be done with it. */
function MixRow({ mix, target, action }: { mix: Pourable; target: readonly TargetAngle[]; action: ReactNode }) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const nameOf = (id: string) =>
    [...library.pigments, ...library.dyes, ...library.grounds].find((m) => m.id === id)?.name ?? id;
  return (
    <Box
      component="li"
      sx={{
        ...{ display: 'grid', gridTemplateColumns: '260px minmax(0, 1fr) auto', gap: 2.5, alignItems: 'center' },
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
        <Box
          component="ul"
          aria-label="Parts"
          sx={{
            ...{ listStyle: 'none', m: 0, my: 0.5, p: 0, display: 'flex', flexWrap: 'wrap', columnGap: 2.5 },
            '& > li': { whiteSpace: 'nowrap' },
            '& b': { fontFamily: FIGURES, fontWeight: 600, pr: 0.75 },
          }}
        >
          <li>
            <b>100</b>carrier
          </li>
          {mix.parts.map((p) => (
            <li key={p.id}>
              <b>{p.parts.toFixed(1)}</b>
              {nameOf(p.id).toLowerCase()}
            </li>
          ))}
        </Box>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {mix.maxDe.toFixed(1)} dE00 off at its worst angle;{' '}
          {mix.window
            ? `passes from ${mix.window[0].toFixed(1)} to ${mix.window[1].toFixed(1)} coats`
            : 'passes at no count'}
          ; {mix.cans} cans. Rounding moved it by {mix.rounded.toFixed(2)}.
        </Typography>
      </Box>
      {action}
    </Box>
  );
}
