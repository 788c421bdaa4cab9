import { useTheme } from '@mui/material';
import { LADDER_LAST, predictedLabs, type CardSaid, type RungReading } from '@steady-gleam/core/letdown';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { CartesianGrid, ComposedChart, Line, ResponsiveContainer, Scatter, XAxis, YAxis } from 'recharts';
import { FIGURES } from '../../app/theme';
import { angleKey } from '../../shared/angles';

const DASH = ['', '9 4', '4 4', '2 4', '10 3 2 3'];

/** What each rung read against the model in this hand: L* over coats, one line an angle. */
export function FitChart({
  card,
  readings,
  target,
}: {
  card: CardSaid;
  readings: readonly RungReading[];
  target: readonly TargetAngle[];
}) {
  const { tones } = useTheme();
  const last = Math.min(LADDER_LAST, Math.max(4, ...readings.map((r) => r.coats)) + 0.5);
  const counts = Array.from({ length: Math.round(last * 4) + 1 }, (_, i) => i / 4);
  const labs = predictedLabs(card.ladder, counts);
  const rows = counts.map((n, k) =>
    Object.fromEntries<number | null>([
      ['n', n] as const,
      ...target.map((t, g) => [`m${angleKey(t)}`, labs[k]![g]![0]] as const),
      ...target.map(
        (t, g) =>
          [`r${angleKey(t)}`, readings.find((r) => Math.abs(r.coats - n) < 1e-6)?.labs[g]?.[0] ?? null] as const,
      ),
    ]),
  );
  return (
    <div
      role="img"
      aria-label="Lightness of every rung as read, over the model's lines"
      style={{ width: '100%', height: 260 }}
    >
      <ResponsiveContainer>
        <ComposedChart data={rows} margin={{ top: 8, right: 16, bottom: 18, left: 0 }}>
          <CartesianGrid stroke={tones.hairline} strokeWidth={0.6} />
          <XAxis
            dataKey="n"
            type="number"
            domain={[0, last]}
            ticks={Array.from({ length: Math.floor(last) + 1 }, (_, n) => n)}
            stroke={tones.ink}
            tick={{ fontFamily: FIGURES, fontSize: 13 }}
            label={{ value: 'coats', position: 'insideBottom', offset: -10, fill: tones.ink }}
          />
          <YAxis
            stroke={tones.ink}
            tick={{ fontFamily: FIGURES, fontSize: 13 }}
            width={46}
            label={{ value: 'L*', angle: -90, position: 'insideLeft', fill: tones.ink }}
            domain={['auto', 'auto']}
          />
          {target.map((t, g) => (
            <Line
              key={angleKey(t)}
              dataKey={`m${angleKey(t)}`}
              stroke={tones.ink}
              strokeWidth={1.6}
              strokeDasharray={DASH[g % DASH.length]}
              dot={false}
              activeDot={false}
              isAnimationActive={false}
            />
          ))}
          {target.map((t) => (
            <Scatter key={angleKey(t)} dataKey={`r${angleKey(t)}`} fill={tones.ink} isAnimationActive={false} />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
}
