import { useTheme } from '@mui/material';
import { halosOf, type BlendLayer } from '@steady-gleam/core/spraying';
import { toShown } from '@steady-gleam/core/units';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { FIGURES } from '../../app/theme';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { useUnits } from '../../shared/units';
import type { BlendAnswer } from '@steady-gleam/core/looks';

const DASH = ['', '9 4', '4 4', '2 4', '10 3 2 3'];

/** The finish that is there over the blend, touching, along the panels; below, how far every layer goes and fades. */
export function BlendPicture({
  value,
  shown,
  layers,
  breaks,
  atCm,
  lengthCm: length,
}: {
  value: BlendAnswer | null;
  /** Angle that is shown. */
  shown: number;
  layers: readonly BlendLayer[];
  /** Breaks between panels, cm from the repair. */
  breaks: readonly number[];
  /** Where the repair lies from the left edge. */
  atCm: number;
  lengthCm: number;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const column = value ? Math.max(0, value.angles.indexOf(shown)) : 0;
  const exposures = value ? exposuresByAngle([value.existing, ...value.profile.looks]) : [];
  const halos = halosOf(layers);
  const x = (cm: number) => ((cm + atCm) / (length + atCm)) * 800;
  return (
    <svg
      viewBox="0 0 930 232"
      width="100%"
      role="img"
      aria-label={`Panels, repair and reaches: ${layers.map((l) => `${l.name} to ${units.say('distance', l.reachCm)}`).join(', ')}`}
    >
      {value
        ? value.profile.places.map((at, i) => {
            const w = x(at + 2) - x(at) + 1.2;
            return (
              <g key={at}>
                <rect
                  x={x(at)}
                  y="0"
                  width={w}
                  height="62"
                  shapeRendering="crispEdges"
                  fill={cssOf(value.existing[column]!, exposures[column])}
                />
                <rect
                  x={x(at)}
                  y="62"
                  width={w}
                  height="62"
                  shapeRendering="crispEdges"
                  fill={cssOf(value.profile.looks[i]![column]!, exposures[column])}
                />
              </g>
            );
          })
        : null}
      {value ? (
        <rect
          x="0"
          y="0"
          width={x(0)}
          height="62"
          shapeRendering="crispEdges"
          fill={cssOf(value.existing[column]!, exposures[column])}
        />
      ) : null}
      {value
        ? // The left side mirrors the right as far as the panel goes.
          value.profile.places
            .filter((at) => at > 0 && at < atCm + 2)
            .map((at) => (
              <rect
                key={-at}
                x={x(-at)}
                y="62"
                width={x(2) - x(0) + 0.6}
                height="62"
                shapeRendering="crispEdges"
                fill={cssOf(value.profile.looks[Math.round(at / 2)]![column]!, exposures[column])}
              />
            ))
        : null}
      {breaks.map((b) => (
        <line key={b} x1={x(b)} x2={x(b)} y1="0" y2="232" stroke={tones.ink} strokeWidth="2.5" strokeDasharray="7 4" />
      ))}
      {layers.map((l, i) => {
        const y = 136 + i * (92 / layers.length);
        const bad = halos.some((h) => h.lower.id === l.id);
        return (
          <g key={l.id}>
            <path
              d={`M${x(Math.max(-atCm, -(l.reachCm - l.fadeCm)))} ${y}H${x(Math.max(0, l.reachCm - l.fadeCm))}`}
              stroke={bad ? tones.danger : tones.ink}
              strokeWidth="7"
            />
            <path
              d={`M${x(Math.max(0, l.reachCm - l.fadeCm))} ${y - 3.5}L${x(l.reachCm)} ${y}L${x(Math.max(0, l.reachCm - l.fadeCm))} ${y + 3.5}Z`}
              fill={bad ? tones.danger : tones.ink}
            />
            <text x="808" y={y + 4.5} fontSize="15" fill={tones.ink}>
              {l.name} {units.say('distance', l.reachCm)}
            </text>
          </g>
        );
      })}
      <circle cx={x(0)} cy="93" r="5" fill="none" stroke={tones.ink} strokeWidth="2" />
    </svg>
  );
}

/** Difference to the finish that is there along the panels, a line an angle. */
export function BlendChart({
  value,
  shown,
  breaks,
  lengthCm: length,
}: {
  value: BlendAnswer | null;
  shown: number;
  breaks: readonly number[];
  lengthCm: number;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const rows = value
    ? value.profile.places.map((at, i) =>
        Object.fromEntries<number>([
          ['at', at] as const,
          ...value.angles.map((a, g) => [`a${a}`, value.profile.differences[g]![i]!] as const),
        ]),
      )
    : [];
  // Ticks are round in the units that are shown.
  const perUnit = toShown('distance', 1, units.system);
  const tick = [5, 10, 20, 25, 50, 100, 200].find((step) => (length * perUnit) / step <= 6) ?? 500;
  const ticks = Array.from({ length: Math.floor((length * perUnit) / tick) + 1 }, (_, i) => (i * tick) / perUnit);
  return (
    <ResponsiveContainer>
      <LineChart data={rows} margin={{ top: 6, right: 12, bottom: 16, left: 0 }}>
        <CartesianGrid stroke={tones.hairline} strokeWidth={0.6} />
        <XAxis
          dataKey="at"
          type="number"
          domain={[0, 'dataMax']}
          stroke={tones.ink}
          tick={{ fontFamily: FIGURES, fontSize: 13 }}
          ticks={ticks}
          tickFormatter={(v: number) => (v * perUnit).toFixed(0)}
          label={{
            value: `${units.name('distance')} from the repair`,
            position: 'insideBottom',
            offset: -10,
            fill: tones.ink,
          }}
        />
        <YAxis
          stroke={tones.ink}
          tick={{ fontFamily: FIGURES, fontSize: 13 }}
          width={44}
          label={{ value: 'dE00', angle: -90, position: 'insideLeft', fill: tones.ink }}
        />
        {value?.angles.map((a, g) => (
          <Line
            key={a}
            dataKey={`a${a}`}
            stroke={tones.ink}
            strokeWidth={a === shown ? 3 : 1.4}
            strokeDasharray={DASH[g % DASH.length] ?? ''}
            dot={false}
            isAnimationActive={false}
          />
        ))}
        {breaks.map((b) => (
          <ReferenceLine key={b} x={b} stroke={tones.ink} strokeDasharray="7 4" />
        ))}
      </LineChart>
    </ResponsiveContainer>
  );
}
