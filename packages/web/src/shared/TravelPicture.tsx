import type { ReactNode } from 'react';
import { Box, Typography, useTheme } from '@mui/material';
import { labToLch, type Lab } from '@steady-gleam/core/colour';
import { FIGURES } from '../app/theme';
import { angleKey, sayAngle, type Angle } from './angles';
import { cssOf } from './screenColour';
import { sayLab } from './sayLab';

/** A look at one angle. */
export interface Seen extends Angle {
  readonly lab: Lab;
}

/** Chroma from which a hue is worth a place, C*; ours. */
const HUE_FROM = 6;
/** Chroma ticks of the plane. */
const RINGS = [25, 50, 100, 150] as const;
const SIZE = 236;
const PLOT = { left: 44, right: 12, top: 12, bottom: 30 } as const;

/** Looks of one lamp each, from face to flop. */
function byLamp(looks: readonly Seen[]): Seen[][] {
  const lamps = [...new Set(looks.map((t) => t.incidence))].sort((a, b) => a - b);
  return lamps.map((i) => looks.filter((t) => t.incidence === i).sort((a, b) => a.aspecular - b.aspecular));
}

/** Hues one after the other without a jump at 360 degrees. */
export function unrolled(hues: readonly number[]): number[] {
  return hues.reduce<number[]>((all, h, i) => {
    const before = i ? all[i - 1]! : h;
    return [...all, h + 360 * Math.round((before - h) / 360)];
  }, []);
}

/** How far the hue turns from lamp to lamp at the face, degrees; null where fewer than two lamps were read there. */
export function travelOf(looks: readonly Seen[]): number | null {
  const face = byLamp(looks).flatMap((own) => {
    const [first] = own;
    return first && labToLch(first.lab)[1] >= HUE_FROM ? [labToLch(first.lab)[2]] : [];
  });
  if (face.length < 2) return null;
  const turned = unrolled(face);
  return Math.max(...turned) - Math.min(...turned);
}

/**
 * The travel of a colour: its path over the a*b* plane, and its hue over the angle, lamp by lamp. The target is drawn in rings, what
 * is compared with it in dots.
 */
export function TravelPicture({
  target,
  sample = null,
  compact = false,
}: {
  target: readonly Seen[];
  sample?: readonly Seen[] | null;
  /** The path alone. */
  compact?: boolean;
}) {
  const { tones } = useTheme();
  const most = Math.max(30, ...[...target, ...(sample ?? [])].map((t) => Math.hypot(t.lab[1], t.lab[2])));
  const half = SIZE / 2;
  const at = (lab: Lab) => ({ x: half + (lab[1] / most) * (half - 14), y: half - (lab[2] / most) * (half - 14) });
  const path = (own: readonly Seen[]) =>
    own
      .map((t) => at(t.lab))
      .map(({ x, y }) => `${x},${y}`)
      .join(' ');
  const lamps = byLamp(target);
  const shown = (looks: readonly Seen[]) =>
    byLamp(looks).map((own) => own.filter((t) => labToLch(t.lab)[1] >= HUE_FROM));
  const hueRows = shown(target).map((own) => ({ own, hues: unrolled(own.map((t) => labToLch(t.lab)[2])) }));
  // Lamps follow one another without a jump too.
  const anchor = hueRows.find((r) => r.hues.length)?.hues[0] ?? 0;
  const near = (h: number) => h + 360 * Math.round((anchor - h) / 360);
  const all = [...target, ...(sample ?? [])].filter((t) => labToLch(t.lab)[1] >= HUE_FROM);
  const hues = all.map((t) => near(labToLch(t.lab)[2]));
  const [lo, hi] = hues.length ? [Math.min(...hues) - 12, Math.max(...hues) + 12] : [0, 360];
  const [a0, a1] = [
    Math.min(...target.map((t) => t.aspecular), 15) - 6,
    Math.max(...target.map((t) => t.aspecular), 45) + 6,
  ];
  const width = 360;
  const px = (aspecular: number) => PLOT.left + ((aspecular - a0) / (a1 - a0)) * (width - PLOT.left - PLOT.right);
  const py = (h: number) => PLOT.top + ((hi - near(h)) / (hi - lo)) * (SIZE - PLOT.top - PLOT.bottom);
  const step = hi - lo > 180 ? 60 : hi - lo > 70 ? 30 : 15;
  const ticks = Array.from({ length: 30 }, (_, i) => (Math.ceil(lo / step) + i) * step).filter((h) => h <= hi);
  const dash = ['2 4', '', '8 4'];
  const dot = (t: Seen, x: number, y: number, ring: boolean) => (
    <circle
      key={`${ring}${angleKey(t)}`}
      cx={x}
      cy={y}
      r={ring ? 6.5 : 3.5}
      fill={ring ? cssOf([Math.max(30, t.lab[0]), t.lab[1], t.lab[2]]) : tones.ink}
      stroke={tones.ink}
      strokeWidth={ring ? 1.5 : 0}
    >
      <title>{`${sayAngle(t)}: ${sayLab(t.lab)}`}</title>
    </circle>
  );
  const turns = travelOf(target);
  return (
    <Box role="img" aria-label="Travel of the colour: its path on the a*b* plane and its hue over the angle">
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <svg width={SIZE} height={SIZE} style={{ fontFamily: FIGURES, fontSize: 12 }}>
          {RINGS.filter((r) => r < most).map((r) => (
            <circle key={r} cx={half} cy={half} r={(r / most) * (half - 14)} fill="none" stroke={tones.hairline} />
          ))}
          <path d={`M0 ${half}H${SIZE}M${half} 0V${SIZE}`} stroke={tones.hairline} />
          <text x={SIZE - 20} y={half - 5} fill={tones.ink}>
            a*
          </text>
          <text x={half + 5} y={12} fill={tones.ink}>
            b*
          </text>
          {lamps.map((own, i) => (
            <polyline
              key={own[0]!.incidence}
              points={path(own)}
              fill="none"
              stroke={tones.ink}
              strokeWidth={1.5}
              strokeDasharray={dash[i % dash.length]}
            />
          ))}
          {target.map((t) => dot(t, at(t.lab).x, at(t.lab).y, true))}
          {(sample ?? []).map((t) => dot(t, at(t.lab).x, at(t.lab).y, false))}
        </svg>
        {compact ? null : (
          <HuePlot
            width={width}
            ticks={ticks}
            py={py}
            target={target}
            px={px}
            hueRows={hueRows}
            dash={dash}
            shown={shown}
            dot={dot}
            sample={sample}
          />
        )}
      </Box>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {compact ? 'Its path on the a*b* plane' : 'Left the path on the a*b* plane, right hue over the view'}
        {sample ? '; rings: target, dots: prediction' : ''}.
        {compact
          ? ''
          : lamps.length > 1
            ? ` Lamp at ${lamps.map((own) => `${own[0]!.incidence}°`).join(', ')}: dotted, solid, dashed.`
            : ' Read it under a lamp at 25° and 65° too: that is where it travels most.'}
        {turns === null || compact ? '' : ` From lamp to lamp the face turns by ${turns.toFixed(0)}° of hue.`}
      </Typography>
    </Box>
  );
}

interface HuePlotProps {
  readonly width: 360;
  readonly ticks: number[];
  readonly py: (h: number) => number;
  readonly target: readonly Seen[];
  readonly px: (aspecular: number) => number;
  readonly hueRows: { own: Seen[]; hues: number[] }[];
  readonly dash: string[];
  readonly shown: (looks: readonly Seen[]) => Seen[][];
  readonly dot: (t: Seen, x: number, y: number, ring: boolean) => ReactNode;
  readonly sample: readonly Seen[] | null;
}

/** Hue over the angle, lamp by lamp. */
function HuePlot({ width, ticks, py, target, px, hueRows, dash, shown, dot, sample }: HuePlotProps) {
  const { tones } = useTheme();
  return (
    <svg width={width} height={SIZE} style={{ fontFamily: FIGURES, fontSize: 12 }}>
      {ticks.map((h) => (
        <g key={h}>
          <path d={`M${PLOT.left} ${py(h)}H${width - PLOT.right}`} stroke={tones.hairline} />
          <text x={PLOT.left - 6} y={py(h) + 4} textAnchor="end" fill={tones.ink}>
            {((h % 360) + 360) % 360}°
          </text>
        </g>
      ))}
      {[...new Set(target.map((t) => t.aspecular))].map((a) => (
        <text key={a} x={px(a)} y={SIZE - 8} textAnchor="middle" fill={tones.ink}>
          {a}°
        </text>
      ))}
      {hueRows.map(({ own }, i) => (
        <polyline
          key={i}
          points={own.map((t) => `${px(t.aspecular)},${py(labToLch(t.lab)[2])}`).join(' ')}
          fill="none"
          stroke={tones.ink}
          strokeWidth={1.5}
          strokeDasharray={dash[i % dash.length]}
        />
      ))}
      {shown(target)
        .flat()
        .map((t) => dot(t, px(t.aspecular), py(labToLch(t.lab)[2]), true))}
      {shown(sample ?? [])
        .flat()
        .map((t) => dot(t, px(t.aspecular), py(labToLch(t.lab)[2]), false))}
    </svg>
  );
}
