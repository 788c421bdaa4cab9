import { Box, Typography } from '@mui/material';
import { layAll, lessonSheet, type GunSample, type Lesson, type PracticeGun } from '@steady-gleam/core/practice';
import { useEffect, useRef } from 'react';
import { createPanelPaint, type FilmColours } from './panelPaint';

/** A coat that was laid, small. */
export function PanelThumb({
  samples,
  base,
  lesson,
  gun,
  colours,
  title,
  said,
}: {
  samples: readonly GunSample[];
  base: Float64Array;
  lesson: Lesson;
  gun: PracticeGun;
  colours: FilmColours;
  title: string;
  said: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const sheet = layAll(lessonSheet(lesson), gun, samples);
    createPanelPaint(canvas.current!, sheet.columns, sheet.rows).draw(base, sheet, colours);
  }, [samples, base, lesson, gun, colours]);
  return (
    <Box component="figure" sx={{ m: 0, flex: 1, minWidth: 0, display: 'flex', gap: 1.25 }}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={`${title}: ${said}`}
        style={{ width: 180, height: 105, display: 'block', flex: 'none' }}
      />
      <Box component="figcaption" sx={{ fontSize: 14 }}>
        <Typography variant="h3" component="div">
          {title}
        </Typography>
        {said}
      </Box>
    </Box>
  );
}
