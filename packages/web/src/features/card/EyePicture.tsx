import { Typography, useTheme } from '@mui/material';
import type { EyePosterior } from '@steady-gleam/core/letdown';
import { FIGURES } from '../../app/theme';

/** What verdicts by eye say of the count: the chance over coats, nine in ten shaded. */
export function EyePicture({ posterior }: { posterior: EyePosterior }) {
  const { tones } = useTheme();
  const { counts, chance, interval, best } = posterior;
  const [width, height] = [296, 92];
  const most = Math.max(...chance);
  const x = (n: number) => ((n - counts[0]!) / (counts.at(-1)! - counts[0]!)) * width;
  const y = (c: number) => height - (c / most) * (height - 8);
  const path = chance.map((c, i) => `${i ? 'L' : 'M'}${x(counts[i]!).toFixed(1)} ${y(c).toFixed(1)}`).join('');
  return (
    <figure style={{ margin: 0 }}>
      <svg
        viewBox={`-8 0 ${width + 16} ${height + 18}`}
        width="100%"
        role="img"
        aria-label={`By eye: ${best.toFixed(1)} coats, nine in ten between ${interval[0].toFixed(1)} and ${interval[1].toFixed(1)}`}
      >
        <rect
          x={x(interval[0])}
          width={Math.max(1, x(interval[1]) - x(interval[0]))}
          y="0"
          height={height}
          fill={tones.raised}
        />
        <path d={`${path}L${width} ${height}L0 ${height}Z`} fill={tones.ink} fillOpacity=".25" />
        <path d={path} fill="none" stroke={tones.ink} strokeWidth="2" />
        <path d={`M${x(best)} 0V${height}`} stroke={tones.pick} strokeWidth="3" />
        {[1, 2, 3, 4, 5, 6, 7, 8].map((n) => (
          <text
            key={n}
            x={x(n)}
            y={height + 14}
            textAnchor="middle"
            fontSize="12"
            fontFamily={FIGURES}
            fill={tones.ink}
          >
            {n}
          </text>
        ))}
      </svg>
      <Typography component="figcaption" variant="body2" sx={{ color: 'text.secondary' }}>
        coats that match, by eye; shaded: nine in ten
      </Typography>
    </figure>
  );
}
