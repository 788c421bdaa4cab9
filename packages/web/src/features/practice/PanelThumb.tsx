import { Box, Typography } from '@mui/material';
import { lessonSheet, type Lesson } from '@steady-gleam/core/practice';
import { useEffect, useRef } from 'react';
import { createPanelPaint, type FilmColours } from './panelPaint';

/** A coat that was laid, small. */
export function PanelThumb({
  film,
  base,
  lesson,
  colours,
  title,
  said,
}: {
  film: Float64Array;
  base: Float64Array;
  lesson: Lesson;
  colours: FilmColours;
  title: string;
  said: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const { columns, rows } = lessonSheet(lesson);
    createPanelPaint(canvas.current!, columns, rows).draw(base, film, colours);
  }, [film, base, lesson, colours]);
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
