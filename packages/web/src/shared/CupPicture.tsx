import { useTheme } from '@mui/material';
import type { MixedPart } from '@steady-gleam/core/mixing';
import { FIGURES } from '../app/theme';
import { useUnits } from './units';

const GREYS = ['#8f8f8f', '#6c6c6c', '#4d4d4d', '#a5a5a5', '#3a3a3a'];
/** Least room between two marks' figures. */
const LINE = 18;

/** The cup as it stands on the bench: each part from mark to mark. */
export function CupPicture({ parts, cup, ml }: { parts: readonly MixedPart[]; cup: number; ml: number }) {
  const { tones } = useTheme();
  const units = useUnits();
  const [width, height, floor] = [300, 300, 276];
  const scale = (floor - 24) / cup;
  const y = (mark: number) => floor - mark * scale;
  // A mixing cup widens a little toward its rim.
  const half = (at: number) => 74 + (26 * (floor - at)) / floor;
  const band = (from: number, to: number) => {
    const [low, high] = [y(from), y(to)];
    return `M${110 - half(low)} ${low}L${110 - half(high)} ${high}H${110 + half(high)}L${110 + half(low)} ${low}Z`;
  };
  // From the top down every figure stands at its mark or just below the one above it.
  const labels: number[] = [];
  for (let i = parts.length - 1; i >= 0; i--)
    labels[i] = Math.max(y(parts[i]!.mark), (labels[i + 1] ?? -Infinity) + LINE);
  const digits = units.system === 'us' ? 2 : 0;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      style={{ maxHeight: 300 }}
      role="img"
      aria-label={`Cup of ${units.say('volume', cup)}: ${parts.map((p) => `${p.name} to ${units.say('volume', p.mark)}`).join(', ')}`}
    >
      {parts.map((p, i) => (
        <path key={p.name} d={band(parts[i - 1]?.mark ?? 0, p.mark)} fill={GREYS[i % GREYS.length]} />
      ))}
      <path
        d={`M${110 - half(14)} 14L${110 - half(floor)} ${floor}H${110 + half(floor)}L${110 + half(14)} 14`}
        fill="none"
        stroke={tones.ink}
        strokeWidth="2.5"
      />
      {parts.map((p, i) => {
        const at = y(p.mark);
        const last = i === parts.length - 1;
        return (
          <g key={p.name}>
            <path
              d={`M${110 - half(at)} ${at}H${110 + half(at)}L222 ${labels[i]!}`}
              fill="none"
              stroke={last ? tones.pick : tones.ink}
              strokeWidth={last ? 3.5 : 1.5}
            />
            <text x="228" y={labels[i]! + 5} fontSize="17" fontFamily={FIGURES} fontWeight="600" fill={tones.ink}>
              {units.figure('volume', p.mark, digits)}
            </text>
          </g>
        );
      })}
      <text x="110" y={height - 6} textAnchor="middle" fontSize="14" fontFamily={FIGURES} fill={tones.ink}>
        {units.figure('volume', ml, digits)} of {units.say('volume', cup)}
      </text>
    </svg>
  );
}
