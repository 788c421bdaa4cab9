import { useTheme } from '@mui/material';
import type { MixedPart } from '@steady-gleam/core';
import { FIGURES } from '../../app/theme';

const GREYS = ['#8f8f8f', '#6c6c6c', '#4d4d4d', '#a5a5a5', '#3a3a3a'];

/** The cup as it stands on the bench: each part from mark to mark. */
export function CupPicture({ parts, cup, ml }: { parts: readonly MixedPart[]; cup: number; ml: number }) {
  const { tones } = useTheme();
  const [width, height, floor] = [300, 330, 306];
  const scale = (floor - 24) / cup;
  const y = (mark: number) => floor - mark * scale;
  // A mixing cup widens a little toward its rim.
  const half = (at: number) => 74 + (26 * (floor - at)) / floor;
  const band = (from: number, to: number) => {
    const [low, high] = [y(from), y(to)];
    return `M${110 - half(low)} ${low}L${110 - half(high)} ${high}H${110 + half(high)}L${110 + half(low)} ${low}Z`;
  };
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="img"
      aria-label={`Cup of ${cup} ml: ${parts.map((p) => `${p.name} to ${p.mark.toFixed(0)}`).join(', ')} ml`}
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
        // Marks closer than a line of text are written above each other, the first lowest.
        const crowded = parts.slice(0, i).filter((q) => y(q.mark) - at < 17).length;
        const label = at - crowded * 4;
        return (
          <g key={p.name}>
            <path
              d={`M${110 - half(at)} ${at}H222`}
              stroke={i === parts.length - 1 ? tones.pick : tones.ink}
              strokeWidth={i === parts.length - 1 ? 3.5 : 1.5}
            />
            <text x="228" y={label + 5} fontSize="17" fontFamily={FIGURES} fontWeight="600" fill={tones.ink}>
              {p.mark.toFixed(0)}
            </text>
          </g>
        );
      })}
      <text x="110" y={height - 6} textAnchor="middle" fontSize="14" fontFamily={FIGURES} fill={tones.ink}>
        {ml.toFixed(0)} of {cup} ml
      </text>
    </svg>
  );
}
