import { Typography, useTheme } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import { differenceAlong, type AngleLab } from '@steady-gleam/core/bank';
import { FIGURES } from '../../app/theme';
import { askedOf, sayRung } from './bankModel';

/** Of the picture, px: its width and height, room for the counts below, and at both ends. */
const [WIDTH, HEIGHT, BELOW, EDGE] = [280, 96, 20, 12] as const;

/** How far a card is from what is looked for, over its counts: its rungs as dots, between them as worked out, the best marked. */
export function CardCurve({
  rungs,
  asked,
  at,
}: {
  rungs: readonly ReadingSet[];
  asked: readonly AngleLab[];
  at: number | null;
}) {
  const { tones } = useTheme();
  const read = rungs.map((r) => ({ coats: r.rungCoats!, angles: askedOf(r.readings) }));
  const points = differenceAlong(read, asked);
  const first = read[0]!.coats;
  const last = read.at(-1)!.coats;
  const most = Math.max(2, ...points.map((p) => p.off));
  const x = (coats: number) => EDGE + ((coats - first) / Math.max(0.5, last - first)) * (WIDTH - 2 * EDGE);
  const y = (d: number) => 8 + (1 - d / most) * (HEIGHT - 12);
  return (
    <figure style={{ margin: 0 }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + BELOW}`}
        role="img"
        aria-label="Largest difference over the counts of the card"
        style={{ width: '100%', display: 'block' }}
      >
        <line x1={EDGE} x2={WIDTH - EDGE} y1={y(0)} y2={y(0)} stroke={tones.hairline} />
        {at === null ? null : <line x1={x(at)} x2={x(at)} y1={4} y2={y(0)} stroke={tones.pick} strokeWidth={4} />}
        <polyline
          points={points.map((p) => `${x(p.coats)},${y(p.off)}`).join(' ')}
          fill="none"
          stroke={tones.ink}
          strokeWidth={1.8}
        />
        {points
          .filter((p) => read.some((r) => r.coats === p.coats))
          .map((r) => (
            <g key={r.coats}>
              <circle cx={x(r.coats)} cy={y(r.off)} r={4} fill={tones.ink} />
              <text
                x={x(r.coats)}
                y={HEIGHT + 14}
                textAnchor="middle"
                fontFamily={FIGURES}
                fontSize={13}
                fill={tones.ink}
              >
                {sayRung(r.coats)}
              </text>
            </g>
          ))}
      </svg>
      <Typography component="figcaption" variant="body2" sx={{ color: 'text.secondary' }}>
        largest dE00 over coats, up to {most.toFixed(1)}
      </Typography>
    </figure>
  );
}
