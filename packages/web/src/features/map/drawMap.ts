import { SAY_UP_TO } from './mapModel';
import type { Lab } from '@steady-gleam/core/colour';
import type { MapPick, MatchMap } from '@steady-gleam/core/matching';
import { findGround, type GroundMaterial } from '@steady-gleam/core/materials';
import { cssOf, inkOn } from '../../shared/screenColour';
import { columnAt } from './mapModel';

/** What the picture of a map needs besides its place on a canvas. */
export interface MapPicture {
  readonly map: MatchMap;
  /** Index of the angle shown. */
  readonly angle: number;
  readonly exposure: number;
  readonly target: Lab;
  readonly pick: string;
  readonly probe: MapPick | null;
}

const FIGURE_FONT = '"Atkinson Hyperlegible Mono", monospace';

/**
 * Draws the cells of a map: split on the diagonal, prediction below, target above; rms figures; the acceptance contour; the
 * three picks and the probe.
 */
export function drawMap(
  ink: CanvasRenderingContext2D,
  { map, angle, exposure, target, pick, probe }: MapPicture,
  width: number,
  height: number,
  scale = 1,
): void {
  const rows = map.rows.length;
  const columns = map.counts.length;
  const x = (c: number) => Math.round((c * width) / columns);
  const y = (r: number) => Math.round((r * height) / rows);
  const contour = new Path2D();
  ink.fillStyle = cssOf(target, exposure);
  ink.fillRect(0, 0, width, height);
  map.rows.forEach((row, r) => {
    row.cells.forEach((cell, c) => {
      ink.fillStyle = cssOf(cell.labs[angle]!, exposure);
      ink.beginPath();
      ink.moveTo(x(c), y(r));
      ink.lineTo(x(c + 1), y(r + 1));
      ink.lineTo(x(c), y(r + 1));
      ink.fill();
    });
  });
  map.rows.forEach((_, r) => trace(contour, map, r, x, y));
  stroke(ink, contour, '#f4f4f4', 4 * scale);
  stroke(ink, contour, '#101010', 1.8 * scale);
  const place = (at: MapPick) => ({
    r: map.rows.findIndex((row) => row.groundId === at.groundId),
    c: map.counts.indexOf(at.coats),
  });
  const box = (at: MapPick, inset: number): Path2D | null => {
    const { r, c } = place(at);
    if (r < 0 || c < 0) return null;
    const path = new Path2D();
    path.rect(x(c) + inset, y(r) + inset, x(c + 1) - x(c) - 2 * inset, y(r + 1) - y(r) - 2 * inset);
    return path;
  };
  const best = box(map.best, 2.5 * scale);
  if (best) {
    stroke(ink, best, '#101010', 6 * scale);
    stroke(ink, best, pick, 4 * scale);
  }
  // The best cell's ring says it all where it is also the most forgiving or the cheapest.
  if (map.forgiving && !samePick(map.forgiving, map.best)) mark(ink, 'wide', place(map.forgiving), x, y, scale);
  if (map.cheapest && !samePick(map.cheapest, map.best)) mark(ink, 'cheap', place(map.cheapest), x, y, scale);
  const at = probe && box(probe, 1 * scale);
  if (at) {
    stroke(ink, at, '#f4f4f4', 2.5 * scale);
    ink.setLineDash([5 * scale, 4 * scale]);
    stroke(ink, at, '#101010', 2.5 * scale);
    ink.setLineDash([]);
  }
  const size = Math.min(13 * scale, (height / rows) * 0.62);
  ink.font = `${size}px ${FIGURE_FONT}`;
  ink.textAlign = 'right';
  ink.textBaseline = 'middle';
  ink.lineJoin = 'round';
  const light = inkOn(target, exposure) === '#f4f4f4';
  ink.fillStyle = light ? '#f4f4f4' : '#101010';
  ink.strokeStyle = light ? '#10101099' : '#f4f4f499';
  ink.lineWidth = 3 * scale;
  map.rows.forEach((row, r) => {
    row.cells.forEach((cell, c) => {
      if (cell.score.rmsDe > SAY_UP_TO) return;
      const text = cell.score.rmsDe.toFixed(1);
      const [right, middle] = [x(c + 1) - 7 * scale, (y(r) + y(r + 1)) / 2];
      // Over the lines of the contour and the rings a figure needs a rim to be read.
      if (cell.score.toleranceRatio <= 1.2) ink.strokeText(text, right, middle);
      ink.fillText(text, right, middle);
    });
  });
}

export const samePick = (a: MapPick, b: MapPick): boolean => a.groundId === b.groundId && a.coats === b.coats;

function stroke(ink: CanvasRenderingContext2D, path: Path2D, colour: string, width: number): void {
  ink.strokeStyle = colour;
  ink.lineWidth = width;
  ink.stroke(path);
}

/** One row's part of the acceptance contour; edges shared with the rows above and below are left out. */
function trace(path: Path2D, map: MatchMap, r: number, x: (c: number) => number, y: (r: number) => number): void {
  const span = (i: number): readonly [number, number] | null => {
    const window = map.rows[i]?.stop.window;
    if (!window) return null;
    const columns = map.counts.length;
    const from = columnAt(window[0], columns);
    return [from, Math.max(from + 0.04, columnAt(window[1], columns))];
  };
  const own = span(r);
  if (!own) return;
  for (const side of own) {
    path.moveTo(x(side), y(r));
    path.lineTo(x(side), y(r + 1));
  }
  for (const [neighbour, edge] of [
    [span(r - 1), r],
    [span(r + 1), r + 1],
  ] as const) {
    const pieces: [number, number][] = neighbour
      ? [
          [own[0], Math.min(own[1], neighbour[0])],
          [Math.max(own[0], neighbour[1]), own[1]],
        ]
      : [[own[0], own[1]]];
    for (const [from, to] of pieces) {
      if (to <= from) continue;
      path.moveTo(x(from), y(edge));
      path.lineTo(x(to), y(edge));
    }
  }
}

/** Marks of the picks that are not the best: arrows apart for the most forgiving, a coin for the cheapest. */
export function markPath(kind: 'wide' | 'cheap', cx: number, cy: number, size: number): Path2D {
  const path = new Path2D();
  if (kind === 'wide') {
    path.moveTo(cx - size, cy);
    path.lineTo(cx + size, cy);
    for (const sign of [-1, 1]) {
      path.moveTo(cx + sign * size * 0.45, cy - size * 0.5);
      path.lineTo(cx + sign * size, cy);
      path.lineTo(cx + sign * size * 0.45, cy + size * 0.5);
    }
  } else {
    path.arc(cx, cy, size * 0.75, 0, Math.PI * 2);
    path.moveTo(cx, cy - size * 0.35);
    path.lineTo(cx, cy + size * 0.35);
  }
  return path;
}

function mark(
  ink: CanvasRenderingContext2D,
  kind: 'wide' | 'cheap',
  { r, c }: { r: number; c: number },
  x: (c: number) => number,
  y: (r: number) => number,
  scale: number,
): void {
  if (r < 0 || c < 0) return;
  const size = Math.min(8 * scale, (y(r + 1) - y(r)) * 0.24);
  const path = markPath(kind, x(c) + (kind === 'wide' ? 15 : 34) * scale, y(r + 1) - size - 5 * scale, size);
  stroke(ink, path, '#f4f4f4', 4.5 * scale);
  stroke(ink, path, '#101010', 2 * scale);
}

/** The whole map with its rows and columns named, for a file. */
export function mapImage(
  picture: MapPicture,
  grounds: readonly GroundMaterial[],
  columnLabel: (n: number) => string,
  title: string,
): HTMLCanvasElement {
  const scale = 2;
  const left = 240;
  const top = 84;
  const cell = { width: 130, height: 76 };
  const { map } = picture;
  const canvas = document.createElement('canvas');
  canvas.width = left + map.counts.length * cell.width + 24;
  canvas.height = top + map.rows.length * cell.height + 64;
  const ink = canvas.getContext('2d')!;
  ink.fillStyle = '#ababab';
  ink.fillRect(0, 0, canvas.width, canvas.height);
  ink.fillStyle = '#121212';
  ink.textBaseline = 'middle';
  ink.font = '600 34px "Archivo Variable", sans-serif';
  ink.fillText(title, 24, 44);
  ink.font = '26px "Archivo Variable", sans-serif';
  map.rows.forEach((row, r) =>
    ink.fillText(findGround(row.groundId, grounds).name, 24, top + (r + 0.5) * cell.height, left - 40),
  );
  ink.textAlign = 'center';
  map.counts.forEach((n, c) =>
    ink.fillText(columnLabel(n), left + (c + 0.5) * cell.width, top + map.rows.length * cell.height + 32),
  );
  ink.translate(left, top);
  drawMap(ink, { ...picture, probe: null }, map.counts.length * cell.width, map.rows.length * cell.height, scale);
  return canvas;
}
