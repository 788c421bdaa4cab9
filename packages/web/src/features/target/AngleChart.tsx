import { Box, useTheme } from '@mui/material';
import { labToLch } from '@steady-gleam/core/colour';
import type { AveragedAngle, Reading } from '@steady-gleam/core/formats';
import { CartesianGrid, ComposedChart, Line, ResponsiveContainer, Scatter, XAxis, YAxis } from 'recharts';
import { FIGURES } from '../../app/theme';

/** Lightness and chroma from face to flop: lines through the averages, a dot for every spot. */
export function AngleChart({
  averaged,
  readings,
}: {
  averaged: readonly AveragedAngle[];
  readings: readonly Reading[];
}) {
  const { tones } = useTheme();
  // One lamp: what other lamps show is drawn with the travel.
  const lines = averaged
    .filter((a) => a.incidence === 45)
    .map((a) => {
      const [l, c] = labToLch(a.lab);
      return { angle: a.aspecular, l, c };
    });
  const spots = readings
    .filter((r) => r.incidence === 45)
    .map((r) => ({ angle: r.aspecular, l: r.l, c: Math.hypot(r.a, r.b) }));
  const tick = { fontFamily: FIGURES, fontSize: 13, fill: tones.ink };
  return (
    <Box
      role="img"
      aria-label="Lightness and chroma from face to flop"
      sx={{ flex: 1, minHeight: 170, maxHeight: 300, maxWidth: 720, mt: 2, position: 'relative' }}
    >
      {/* A share of a height that grows with the page is none. */}
      <Box sx={{ position: 'absolute', inset: 0 }}>
        <ResponsiveContainer>
          <ComposedChart margin={{ top: 8, right: 70, bottom: 4, left: -18 }}>
            <CartesianGrid stroke={tones.hairline} strokeOpacity={0.5} vertical={false} />
            <XAxis
              dataKey="angle"
              type="number"
              domain={['dataMin', 'dataMax']}
              ticks={lines.map((p) => p.angle)}
              tick={tick}
              stroke={tones.hairline}
              unit="°"
              allowDuplicatedCategory={false}
            />
            <YAxis tick={tick} stroke={tones.hairline} domain={[0, 'auto']} />
            <Scatter data={spots} dataKey="l" fill={tones.ink} shape="circle" isAnimationActive={false} />
            <Scatter data={spots} dataKey="c" fill={tones.ink} shape="cross" isAnimationActive={false} />
            <Line
              data={lines}
              dataKey="l"
              stroke={tones.ink}
              strokeWidth={2.25}
              dot={false}
              isAnimationActive={false}
              label={endLabel('L*', lines.length, tones.ink)}
            />
            <Line
              data={lines}
              dataKey="c"
              stroke={tones.ink}
              strokeWidth={1.5}
              strokeDasharray="5 4"
              dot={false}
              isAnimationActive={false}
              label={endLabel('chroma', lines.length, tones.ink)}
            />
          </ComposedChart>
        </ResponsiveContainer>
      </Box>
    </Box>
  );
}

/** Names a line at its last point instead of in a legend. */
function endLabel(name: string, count: number, ink: string) {
  return function EndLabel({ x, y, index }: { x?: number | string; y?: number | string; index?: number }) {
    return index === count - 1 ? (
      <text x={Number(x) + 9} y={Number(y) + 5} fontSize={14} fill={ink}>
        {name}
      </text>
    ) : null;
  };
}
