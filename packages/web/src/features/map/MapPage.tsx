import {
  Box,
  Button,
  FormControlLabel,
  Slider,
  Switch,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import { findSystem, STYLES, type StyleId } from '@steady-gleam/core';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { choiceOf, mixOf, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { dimmedNote } from '../../shared/screenColour';
import { useChangeJob, useJob } from '../../shared/useJob';
import { useCompute } from '../../worker/useCompute';
import { FIGURES } from '../../app/theme';
import { MapGrid } from './MapGrid';
import { ProbePanel } from './ProbePanel';
import { cellOf, mapExposures, sayAnswer } from './mapModel';
import { useProbe } from './useProbe';

const EFFECT_STYLES: readonly StyleId[] = ['wet', 'medium', 'light'];

/** Ground shades by coats: find where the finish lands on the target. */
export function MapPage() {
  const { job, target: set } = useJob();
  const navigate = useNavigate();
  const { library } = useLibrary();
  const change = useChangeJob(job.id);
  const target = useMemo(() => targetOf(set), [set]);
  const [mix, setMix] = useState(() => mixOf(job));
  const { probe, angle, moveTo, showAngle } = useProbe();
  const { value: shown, error } = useCompute(target.length ? JSON.stringify([mix, target]) : null, (c) =>
    c.matchMap(mix, target).then((map) => ({ map, strength: mix.strength })),
  );
  const map = shown?.map;

  const exposures = useMemo(() => (map ? mapExposures(map, target) : []), [map, target]);
  const shownAt = Math.max(
    0,
    target.findIndex((t) => t.aspecular === (angle ?? 45)),
  );
  const stepAngle = useCallback(
    (step: 1 | -1) => showAngle(target[Math.min(target.length - 1, Math.max(0, shownAt + step))]!.aspecular),
    [target, shownAt, showAngle],
  );

  const at = useMemo(() => {
    if (!map || probe) return probe;
    const { groundId, coats } = choiceOf(job);
    return job.choice ? { groundId, coats: map.counts.includes(coats) ? coats : map.best.coats } : map.best;
  }, [map, probe, job]);

  if (!target.length) {
    return (
      <Notice
        title="Read the target first."
        text="The map shows which ground and how many coats reach what you measured. One angle is enough to begin with; five tell face and flop apart."
      >
        <Button component={Link} to={`/jobs/${job.id}/target`} variant="contained">
          Read the target
        </Button>
      </Notice>
    );
  }
  if (error) return <Notice title="The map could not be computed." text={error} />;
  if (!shown || !map || !at) return <Notice title="Working out the map …" />;

  const cell = cellOf(map, at.groundId, at.coats);
  const { answer, why } = sayAnswer(map, library.grounds);
  const system = findSystem(job.systemId, library.systems);
  const colour = system.parts
    .slice(1)
    .map((p) => `${Number((p.parts * mix.strength).toFixed(2))} ${p.name}`)
    .join(' : ');

  const use = () =>
    change.mutate(
      {
        version: job.version,
        choice: {
          groundId: at.groundId,
          coats: at.coats,
          strength: mix.strength,
          style: mix.style,
          controlCoat: mix.controlCoat,
        },
      },
      { onSuccess: () => void navigate(`/jobs/${job.id}/card`) },
    );

  return (
    <Bench
      side={
        <ProbePanel
          job={job}
          mix={mix}
          cell={cell}
          groundId={at.groundId}
          target={target}
          note={dimmedNote(
            target.map((t) => t.aspecular),
            exposures,
          )}
          busy={change.isPending}
          onUse={use}
        />
      }
    >
      <Answer why={why}>{answer}</Answer>
      <MapGrid
        map={map}
        strength={shown.strength}
        target={target}
        angle={shownAt}
        exposure={exposures[shownAt]!}
        probe={at}
        onProbe={moveTo}
        onAngle={stepAngle}
      />
      <Typography variant="body2" sx={{ ml: '104px', color: 'text.secondary' }}>
        effect coats · figures: dE00 over all angles · outlined: every angle passes
      </Typography>
      {change.error ? (
        <Typography role="alert" sx={{ mt: 1, color: 'error.main' }}>
          {change.error.message}
        </Typography>
      ) : null}
      <Box sx={{ display: 'flex', alignItems: 'center', columnGap: 2.5, rowGap: 1.25, flexWrap: 'wrap', mt: 1.5 }}>
        <ToggleButtonGroup
          exclusive
          value={target[shownAt]!.aspecular}
          aria-label="Angle shown"
          onChange={(_, v: number | null) => v !== null && showAngle(v)}
        >
          {target.map((t) => (
            <ToggleButton key={t.aspecular} value={t.aspecular} sx={{ fontFamily: FIGURES, px: 1 }}>
              {t.aspecular}°
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <ToggleButtonGroup
          exclusive
          value={mix.style}
          aria-label="How it is laid"
          onChange={(_, v: StyleId | null) => v && setMix({ ...mix, style: v })}
        >
          {EFFECT_STYLES.map((s) => (
            <ToggleButton key={s} value={s}>
              {STYLES[s].name.split(',')[0]!.replace('Full wet', 'Wet')}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'flex-start', gap: { xs: 1.5, lg: 3 }, mt: 1.25 }}>
        <Box sx={{ width: { xs: 138, lg: 222 }, flex: 'none', pt: '4px' }}>
          <Typography variant="h3" component="div" id="strength-label">
            Strength {mix.strength.toFixed(2)}×
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {system.parts[0]!.parts} {system.parts[0]!.name} : {colour}
          </Typography>
        </Box>
        <Slider
          aria-labelledby="strength-label"
          min={0.5}
          max={2}
          step={0.05}
          value={mix.strength}
          marks={[0.5, 0.75, 1, 1.25, 1.5, 1.75, 2].map((value) => ({
            value,
            label: value % 0.5 === 0 ? `${value}×` : '',
          }))}
          onChange={(_, v) => setMix({ ...mix, strength: v as number })}
          sx={{ flex: 1, mx: 1.5, mb: 1.5, py: '14px' }}
        />
        <FormControlLabel
          sx={{ minHeight: 44, mr: 0, flex: 'none' }}
          control={<Switch checked={mix.controlCoat} onChange={(_, v) => setMix({ ...mix, controlCoat: v })} />}
          label="control coat"
        />
      </Box>
    </Bench>
  );
}
