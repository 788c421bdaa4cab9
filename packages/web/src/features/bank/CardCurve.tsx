import { Typography, useTheme } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import { betweenLabs, type AngleLab } from '@steady-gleam/core/bank';
import { de2000 } from '@steady-gleam/core/colour';
import { FIGURES } from '../../app/theme';
import { askedOf, sayRung } from './bankModel';

const [WIDTH, HEIGHT, BELOW] = [280, 96, 20] as const;
const EDGE = 12;

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
  const off = (angles: readonly AngleLab[]): number =>
    Math.max(
      0,
      ...asked.flatMap((g) => {
        const own = angles.find((h) => h.incidence === g.incidence && h.aspecular === g.aspecular);
        return own ? [de2000(g.lab, own.lab)] : [];
      }),
    );
  const points = read.flatMap((low, i) => {
    const high = read[i + 1];
    const steps = high ? 10 : 1;
    return Array.from({ length: steps }, (_, k) => ({
      coats: high ? low.coats + ((high.coats - low.coats) * k) / steps : low.coats,
      off: off(
        high
          ? low.angles.flatMap((g) => {
              const to = high.angles.find((h) => h.incidence === g.incidence && h.aspecular === g.aspecular);
              return to ? [{ ...g, lab: betweenLabs(g.lab, to.lab, k / steps) }] : [];
            })
          : low.angles,
      ),
    }));
  });
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
        {read.map((r) => (
          <g key={r.coats}>
            <circle cx={x(r.coats)} cy={y(off(r.angles))} r={4} fill={tones.ink} />
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
