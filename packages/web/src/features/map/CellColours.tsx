import type { Lab, MatchMap } from '@steady-gleam/core';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { cssOf } from '../../shared/screenColour';

interface CellColoursProps {
  readonly map: MatchMap;
  /** Index of the angle shown. */
  readonly angle: number;
  readonly exposure: number;
  readonly target: Lab;
}

/**
 * The split cells: prediction below the diagonal, target above; where they match the diagonal vanishes. A canvas behind the
 * grid: one thing to paint while the slider moves, however many cells there are.
 */
export function CellColours({ map, angle, exposure, target }: CellColoursProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });

  useEffect(() => {
    const element = canvas.current!;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useLayoutEffect(() => {
    const element = canvas.current!;
    const width = Math.round(size.width * devicePixelRatio);
    const height = Math.round(size.height * devicePixelRatio);
    if (!width || !height) return;
    if (element.width !== width || element.height !== height) {
      element.width = width;
      element.height = height;
    }
    const ink = element.getContext('2d', { alpha: false })!;
    ink.fillStyle = cssOf(target, exposure);
    ink.fillRect(0, 0, width, height);
    const rows = map.rows.length;
    map.rows.forEach((row, r) => {
      const top = Math.round((r * height) / rows);
      const bottom = Math.round(((r + 1) * height) / rows);
      row.cells.forEach((cell, c) => {
        const left = Math.round((c * width) / row.cells.length);
        const right = Math.round(((c + 1) * width) / row.cells.length);
        ink.fillStyle = cssOf(cell.labs[angle]!, exposure);
        ink.beginPath();
        ink.moveTo(left, top);
        ink.lineTo(right, bottom);
        ink.lineTo(left, bottom);
        ink.fill();
      });
    });
  }, [map, angle, exposure, target, size]);

  return <canvas ref={canvas} aria-hidden style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }} />;
}
