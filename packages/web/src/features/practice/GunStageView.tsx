import { Box, useTheme } from '@mui/material';
import type { Lesson, PracticeGun } from '@steady-gleam/core/practice';
import type { RefObject } from 'react';
import { AROUND_CM, widthAround, type GunStage } from './useGun';

/** How long a fan's spot is against its width: the band that lands at once. */
const NARROW = 0.2;

/** The panel with what is beside it, the gun over it, and the ghost of the coat before. */
export function GunStageView({
  boxRef,
  canvasRef,
  markRef,
  ghostRef,
  handlers,
  lesson,
  gun,
  label,
}: {
  boxRef: RefObject<HTMLDivElement | null>;
  canvasRef: RefObject<HTMLCanvasElement | null>;
  markRef: RefObject<HTMLDivElement | null>;
  ghostRef: RefObject<HTMLDivElement | null>;
  handlers: GunStage['handlers'];
  lesson: Lesson;
  gun: PracticeGun;
  label: string;
}) {
  const { tones } = useTheme();
  const width = widthAround(lesson);
  const height = lesson.heightCm + 2 * AROUND_CM.y;
  const share = (cm: number, of: number) => `${(100 * cm) / of}%`;
  const spot = (stroke: string) => ({
    position: 'absolute' as const,
    ...{ left: 0, top: 0, pointerEvents: 'none' as const, visibility: 'hidden' as const },
    width: share(NARROW * gun.fanCm, width),
    height: share(gun.fanCm, height),
    borderRadius: '50%',
    border: `2px solid ${stroke}`,
    opacity: 0.75,
    '&[data-on="true"]': { opacity: 1, borderWidth: 3 },
  });
  return (
    <Box
      ref={boxRef}
      {...handlers}
      tabIndex={0}
      role="application"
      aria-label={label}
      data-testid="stage"
      sx={{
        position: 'relative',
        aspectRatio: `${width} / ${height}`,
        width: '100%',
        overflow: 'hidden',
        // What is masked around the panel.
        background: tones.panel,
        border: `1px solid ${tones.hairline}`,
        cursor: 'none',
        touchAction: 'none',
        userSelect: 'none',
      }}
    >
      <canvas
        ref={canvasRef}
        data-testid="panel"
        style={{
          position: 'absolute',
          left: share(AROUND_CM.x, width),
          top: share(AROUND_CM.y, height),
          width: share(width - 2 * AROUND_CM.x, width),
          height: share(lesson.heightCm, height),
        }}
      />
      {lesson.panels.slice(0, -1).map((_, i) => {
        const at = lesson.panels.slice(0, i + 1).reduce((a, b) => a + b, 0);
        return (
          <Box
            key={i}
            sx={{
              position: 'absolute',
              left: share(AROUND_CM.x + at, width),
              top: share(AROUND_CM.y, height),
              height: share(lesson.heightCm, height),
              borderLeft: '2px dashed rgba(0, 0, 0, 0.55)',
              pointerEvents: 'none',
            }}
          />
        );
      })}
      <Box ref={ghostRef} sx={{ ...spot('#101010'), borderStyle: 'dashed' }} />
      <Box ref={markRef} sx={spot('#ffffff')} />
    </Box>
  );
}
