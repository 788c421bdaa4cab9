import { Box, Slider, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import type { Illuminant } from '@steady-gleam/core/colour';
import { countsControl, STYLES, type StyleId } from '@steady-gleam/core/finishes';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { sayParts, type EffectMix } from '@steady-gleam/core/materials';
import { memo, useState, type ReactNode } from 'react';
import { FIGURES } from '../../app/theme';
import type { Mix } from '../../worker/computeTypes';
import { angleKey, sayAngle } from '../../shared/angles';

const EFFECT_STYLES: readonly StyleId[] = ['wet', 'medium', 'light'];
/** Lights a match is looked at under: as read, a bulb, a tube. */
export const LIGHTS: readonly { readonly id: Illuminant; readonly name: string }[] = [
  { id: 'D65', name: 'daylight' },
  { id: 'A', name: 'bulb' },
  { id: 'FL11', name: 'tube' },
];

interface MapControlsProps {
  readonly start: Mix;
  readonly system: EffectMix;
  readonly target: readonly TargetAngle[];
  readonly angle: string;
  readonly light: Illuminant;
  readonly onMix: (mix: Mix) => void;
  readonly onAngle: (angle: string) => void;
  readonly onLight: (light: Illuminant) => void;
  /** What else can be done with the map. */
  readonly children?: ReactNode;
}

/** What the map is drawn for. Keeps its own state: the map is asked for before the controls are drawn again. */
export const MapControls = memo(function MapControls(props: MapControlsProps) {
  const { start, system, target, angle, light, onMix, onAngle, onLight, children } = props;
  const [mix, keep] = useState(start);
  const setMix = (next: Mix) => {
    onMix(next);
    keep(next);
  };
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'flex-start', gap: { xs: 1.5, lg: 3 }, mt: 1.25 }}>
        <Box sx={{ width: { xs: 138, lg: 222 }, flex: 'none', pt: '4px' }}>
          <Typography variant="h3" component="div" id="strength-label">
            Strength {mix.strength.toFixed(2)}×
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {sayParts(system, mix.strength)}
          </Typography>
        </Box>
        <Slider
          aria-labelledby="strength-label"
          min={0.5}
          max={2}
          step={0.05}
          value={mix.strength}
          marks={MARKS}
          onChange={(_, v) => setMix({ ...mix, strength: v as number })}
          sx={SLIDER}
        />
        <Box
          sx={{
            display: countsControl(system.family) ? 'none' : 'flex',
            alignItems: 'center',
            gap: 0.75,
            flex: 'none',
          }}
        >
          <span id="control-label">control coats</span>
          <ToggleButtonGroup
            exclusive
            value={mix.controlCoats}
            aria-labelledby="control-label"
            onChange={(_, v: number | null) => v !== null && setMix({ ...mix, controlCoats: v })}
          >
            {[...new Set([0, 1, 2, mix.controlCoats])].sort().map((n) => (
              <ToggleButton key={n} value={n} sx={{ fontFamily: FIGURES, px: 1.25 }}>
                {n}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Box>
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', columnGap: 1.5, rowGap: 1, flexWrap: 'wrap', mt: 0.5 }}>
        <ToggleButtonGroup
          exclusive
          value={angle}
          aria-label="Angle shown"
          onChange={(_, v: string | null) => v !== null && onAngle(v)}
        >
          {target.map((t) => (
            <ToggleButton
              key={angleKey(t)}
              value={angleKey(t)}
              sx={{ fontFamily: FIGURES, px: target.length > 6 ? 0.75 : 1 }}
            >
              {sayAngle(t)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <ToggleButtonGroup
          exclusive
          value={light}
          aria-label="Light"
          onChange={(_, v: Illuminant | null) => v && onLight(v)}
        >
          {LIGHTS.map((l) => (
            <ToggleButton key={l.id} value={l.id} sx={{ px: 1 }}>
              {l.name}
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
            <ToggleButton key={s} value={s} sx={{ px: 1 }}>
              {STYLES[s].name.split(',')[0]!.replace('Full wet', 'Wet')}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ ml: 'auto', display: 'flex' }}>{children}</Box>
      </Box>
    </>
  );
});

const SLIDER = { flex: 1, mx: 1.5, mb: 1.5, py: '14px' } as const;
const MARKS = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2].map((value) => ({
  value,
  label: value % 0.5 === 0 ? `${value}×` : '',
}));
