import { Box, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import type { Illuminant } from '@steady-gleam/core/colour';
import { countsControl, STYLES, type StyleId } from '@steady-gleam/core/finishes';
import { LEAST_STRENGTH, MOST_STRENGTH, type TargetAngle } from '@steady-gleam/core/matching';
import { sayParts, type EffectMix } from '@steady-gleam/core/materials';
import { memo, useCallback, useRef, useState, type ReactNode } from 'react';
import { FIGURES } from '../../app/theme';
import type { Mix } from '@steady-gleam/core/looks';
import { angleKey, sayAngle } from '../../shared/angles';
import { Slide } from '../../ui/Slide';

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
  const strength = useRef(start.strength);
  const setMix = (next: Mix) => {
    onMix({ ...next, strength: strength.current });
    keep(next);
  };
  const onStrength = useCallback(
    (v: number) => {
      strength.current = v;
      onMix({ ...mix, strength: v });
    },
    [mix, onMix],
  );
  return (
    <>
      <Box
        sx={{
          display: 'flex',
          flexWrap: { xs: 'wrap', lg: 'nowrap' },
          alignItems: 'flex-start',
          columnGap: { xs: 1.5, lg: 3 },
          mt: 1.25,
        }}
      >
        <Strength start={start.strength} system={system} onStrength={onStrength} />
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

interface StrengthProps {
  readonly start: number;
  readonly system: EffectMix;
  readonly onStrength: (strength: number) => void;
}

/** The one control that is dragged: drawn alone at every step. */
const Strength = memo(function Strength({ start, system, onStrength }: StrengthProps) {
  const [strength, keep] = useState(start);
  return (
    <>
      {/* Where there is little room the parts stand below, on a line of their own. */}
      <Box sx={{ display: { xs: 'contents', lg: 'block' }, width: 222, flex: 'none', pt: '4px' }}>
        <Typography variant="h3" component="div" id="strength-label" sx={{ pt: { xs: '4px', lg: 0 } }}>
          Strength {strength.toFixed(2)}×
        </Typography>
        <Typography
          variant="body2"
          sx={{ color: 'text.secondary', order: { xs: 1, lg: 0 }, width: { xs: '100%', lg: 'auto' } }}
        >
          {sayParts(system, strength)}
        </Typography>
      </Box>
      <Slide
        aria-labelledby="strength-label"
        min={LEAST_STRENGTH}
        max={MOST_STRENGTH}
        step={0.05}
        value={strength}
        marks={MARKS}
        onChange={(v) => {
          onStrength(v);
          keep(v);
        }}
      />
    </>
  );
});

const MARKS = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2].map((value) => ({
  value,
  said: value % 0.5 === 0 ? `${value}×` : '',
}));
