import { Box, Typography } from '@mui/material';
import type { PassSettings } from '@steady-gleam/contracts';
import type { FanProfile } from '@steady-gleam/core/spraying';
import { useState, type ReactNode } from 'react';
import { MeasureField } from '../../ui/MeasureField';
import { MeasureListField } from '../../shared/MeasureListField';
import { numberIn } from '../../shared/numberIn';
import { LEAST_OVERLAP, MOST_OVERLAP, practisedHand, readPractised } from '../../shared/practised';
import { Toggles } from '../../shared/Toggles';
import { useUnits } from '../../shared/units';
import { Slide } from '../../ui/Slide';

/** Scatter from pass to pass; ours. */
export const HANDS = {
  steady: { speedSd: 0.015, distanceSd: 0.01, aimSdCm: 0.2 },
  usual: { speedSd: 0.04, distanceSd: 0.03, aimSdCm: 0.5 },
  unsteady: { speedSd: 0.12, distanceSd: 0.08, aimSdCm: 1.5 },
} as const;
/** The hand whose scatter the settings have; undefined for a measured one. */
export const handOf = (s: PassSettings): keyof typeof HANDS | undefined =>
  (Object.keys(HANDS) as (keyof typeof HANDS)[]).find((h) => HANDS[h].speedSd === s.speedSd);

/** A choice of a few, under its name. */
function toggles<T extends string>(
  label: string,
  value: T | undefined,
  choices: Partial<Record<T, string>>,
  on: (v: T) => void,
): ReactNode {
  return (
    <Box>
      <Typography variant="h3" component="div" sx={{ mb: 0.5 }}>
        {label}
      </Typography>
      <Toggles label={label} value={value} choices={Object.entries(choices) as [T, string][]} onPick={on} />
    </Box>
  );
}

/** How the passes are laid and where they are looked at. */
export function PassControls({
  settings: s,
  change,
  faults: fault,
  view,
  onView: setView,
  of: looked,
  onOf: setOf,
  coatCount,
  onCoatCount: setCoatCount,
}: {
  settings: PassSettings;
  change: (more: Partial<PassSettings>) => void;
  faults: Readonly<Record<string, string>>;
  view: 0 | 2 | 4;
  onView: (view: 0 | 2 | 4) => void;
  /** Null where there is only one layer to look at. */
  of: 'effect' | 'ground' | null;
  onOf: (of: 'effect' | 'ground') => void;
  coatCount: 'all' | 'one';
  onCoatCount: (count: 'all' | 'one') => void;
}) {
  const units = useUnits();
  const [typed, setTyped] = useState<Partial<Record<'fanCm' | 'heightCm', string>>>({});
  const hand = handOf(s);
  const own = practisedHand(readPractised().hand);
  return (
    <Box sx={{ display: 'flex', gap: 1.5, mt: 1, flexWrap: 'wrap', alignItems: 'flex-end' }}>
      {toggles('Seen at', String(view) as '0' | '2' | '4', { 0: 'face, 15°', 2: '45°', 4: 'flop, 110°' }, (v) =>
        setView(Number(v) as 0 | 2 | 4),
      )}
      {looked ? toggles('Layer', looked, { effect: 'effect', ground: 'ground under it' }, setOf) : null}
      {toggles('Sprayed', coatCount, { one: 'one coat', all: 'all coats' }, setCoatCount)}
      {toggles<FanProfile>(
        'Fan',
        s.profile,
        { bell: 'bell', elliptical: 'elliptical', flat: 'flat-topped' },
        (profile) => change({ profile }),
      )}
      {toggles<keyof typeof HANDS | 'practised'>(
        'Hand',
        own && s.speedSd === own.speedSd ? 'practised' : hand,
        { steady: 'steady', usual: 'usual', unsteady: 'unsteady', ...(own ? { practised: 'as practised' } : {}) },
        (h) => change(h === 'practised' ? own! : HANDS[h]),
      )}
      {toggles(
        'Coats',
        s.cross ? 'cross' : s.shift ? 'shift' : 'same',
        { same: 'same lines', shift: 'half a pass further', cross: 'crossed' },
        (v) => change({ shift: v === 'shift' ? 0.5 : 0, cross: v === 'cross' }),
      )}
      {toggles('Side', s.walk ? 'walk' : 'panel', { walk: 'walked', panel: 'panel by panel' }, (v) =>
        change({ walk: v === 'walk' }),
      )}
      <Box sx={{ width: 180 }}>
        <Typography variant="h3" component="div" id="overlap-label">
          Overlap {Math.round(s.overlap * 100)} %
        </Typography>
        <Slide
          aria-labelledby="overlap-label"
          min={LEAST_OVERLAP}
          max={MOST_OVERLAP}
          step={0.05}
          value={s.overlap}
          onChange={(v) => change({ overlap: v })}
        />
      </Box>
      <Box sx={{ width: 180 }}>
        <Typography variant="h3" component="div" id="margin-label">
          Trigger{' '}
          {s.marginCm >= 0
            ? `${units.say('distance', s.marginCm)} past`
            : `${units.say('distance', -s.marginCm)} before`}{' '}
          the edge
        </Typography>
        <Slide
          aria-labelledby="margin-label"
          min={-6}
          max={15}
          step={1}
          value={s.marginCm}
          onChange={(v) => change({ marginCm: v })}
        />
      </Box>
      <Box sx={{ width: 140 }}>
        <MeasureListField
          measure="distance"
          label="Panels in a row"
          value={s.panels}
          onValue={(panels) => change({ panels })}
          error={fault['panels']}
        />
      </Box>
      {(['fanCm', 'heightCm'] as const).map((key) => (
        <Box key={key} sx={{ width: 104 }}>
          <MeasureField
            measure="distance"
            label={key === 'fanCm' ? 'Fan' : 'Height'}
            value={typed[key] ?? String(s[key])}
            onValue={(v) => {
              setTyped({ ...typed, [key]: v });
              change({ [key]: numberIn(v) });
            }}
            error={fault[key]}
          />
        </Box>
      ))}
    </Box>
  );
}
