import { Box, Typography, useTheme } from '@mui/material';
import { speedAlong, type GunSample, type PracticeGun } from '@steady-gleam/core/practice';

const [WIDTH, HEIGHT] = [300, 64] as const;
const BINS = 40;

/** How fast the gun moved along its strokes, over the band of the speed that lays the coat. */
export function SpeedPicture({
  samples,
  gun,
  widthCm,
}: {
  samples: readonly GunSample[];
  gun: PracticeGun;
  widthCm: number;
}) {
  const { tones } = useTheme();
  const speeds = speedAlong(samples, widthCm, BINS);
  const most = Math.max(1.6 * gun.speedCmS, ...speeds.map((v) => v ?? 0));
  const y = (v: number) => HEIGHT - 4 - (v / most) * (HEIGHT - 8);
  const points = speeds.flatMap((v, i) =>
    v === null ? [] : [`${(((i + 0.5) / BINS) * WIDTH).toFixed(1)},${y(v).toFixed(1)}`],
  );
  const [low, high] = [0.9 * gun.speedCmS, 1.1 * gun.speedCmS];
  return (
    <Box>
      <Typography variant="h2">Speed along the strokes</Typography>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        style={{ width: '100%', height: HEIGHT, display: 'block' }}
        preserveAspectRatio="none"
        role="img"
        aria-label={`Speed from the left edge to the right one; ${low.toFixed(0)} to ${high.toFixed(0)} cm/s lays the coat`}
      >
        <rect x={0} width={WIDTH} y={y(high)} height={y(low) - y(high)} fill={tones.raised} />
        <line x1={0} x2={WIDTH} y1={HEIGHT - 4} y2={HEIGHT - 4} stroke={tones.hairline} />
        <polyline
          points={points.join(' ')}
          fill="none"
          stroke={tones.ink}
          strokeWidth={2}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', fontSize: 14 }}>
        <span>left edge</span>
        <span>
          band {low.toFixed(0)}–{high.toFixed(0)} cm/s
        </span>
        <span>right edge</span>
      </Box>
    </Box>
  );
}
