import { Box, Typography, useTheme } from '@mui/material';
import type { FadedPlan } from '@steady-gleam/core/recovery';
import { FIGURES } from '../../app/theme';
import { useUnits } from '../../shared/units';

const [W, H, TOP] = [300, 96, 14];

/** Difference to what lies beside it from the middle of the place outward: as it is, and after the faded coats. */
export function FadedProfile({ plan }: { plan: FadedPlan }) {
  const { tones } = useTheme();
  const units = useUnits();
  // As far as anything changes, and a little beyond.
  const last = plan.places.findLastIndex((_, i) => plan.before[i]! > 0.05 || plan.after[i]! > 0.05);
  const to = plan.places[Math.min(plan.places.length - 1, Math.max(10, last + 4))]!;
  const most = Math.max(1, ...plan.before, ...plan.after);
  const x = (cm: number) => (cm / to) * W;
  const y = (de: number) => TOP + (1 - de / most) * (H - TOP);
  const path = (values: readonly number[]) =>
    plan.places
      .filter((cm) => cm <= to)
      .map((cm, i) => `${i ? 'L' : 'M'}${x(cm).toFixed(1)} ${y(values[i]!).toFixed(1)}`)
      .join('');
  return (
    <Box sx={{ mt: 1 }}>
      <Typography variant="body2">dE00 to its neighbour, from the middle of the place outward</Typography>
      <svg
        viewBox={`0 0 ${W} ${H + 18}`}
        width="100%"
        role="img"
        aria-label={`Difference to what lies beside it: up to ${Math.max(...plan.before).toFixed(1)} now, ${plan.worst.toFixed(1)} after`}
      >
        <line x1="0" x2={W} y1={H} y2={H} stroke={tones.hairline} />
        <path d={path(plan.before)} fill="none" stroke={tones.ink} strokeWidth="2.5" />
        <path d={path(plan.after)} fill="none" stroke={tones.ink} strokeWidth="2.5" strokeDasharray="6 4" />
        <text x="2" y={TOP - 3} fontSize="13" fontFamily={FIGURES} fill={tones.ink}>
          {Math.max(...plan.before).toFixed(1)} now
        </text>
        <text x={W - 2} y={TOP - 3} fontSize="13" textAnchor="end" fontFamily={FIGURES} fill={tones.ink}>
          {plan.worst.toFixed(1)} at most after
        </text>
        <text x="0" y={H + 14} fontSize="13" fontFamily={FIGURES} fill={tones.ink}>
          0
        </text>
        <text x={W} y={H + 14} fontSize="13" textAnchor="end" fontFamily={FIGURES} fill={tones.ink}>
          {units.say('distance', to)}
        </text>
      </svg>
    </Box>
  );
}
