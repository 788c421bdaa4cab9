import type { Lab } from '@steady-gleam/core/colour';
import { laidFilmsUm, laidFilmUm, layerFilmUm, type LaidWith, type PieceStack } from '@steady-gleam/core/finishes';
import { sayCoats } from '../jobModel';
import type { Units } from '../units';
import { fillOf } from './filmFigures';

/** Stacks as a picture for a file: blocks as wide as their dry film as it is laid, named, totals at the end. */
export function filmImage(
  stacks: readonly PieceStack[],
  looks: readonly (readonly Lab[])[],
  title: string,
  units: Units,
  laid: LaidWith,
): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  const [width, row, left, top] = [1600, 230, 40, 90];
  canvas.width = width;
  canvas.height = top + row * stacks.length;
  const ink = canvas.getContext('2d')!;
  ink.fillStyle = '#ababab';
  ink.fillRect(0, 0, canvas.width, canvas.height);
  ink.fillStyle = '#121212';
  ink.font = '600 34px "Archivo Variable", sans-serif';
  ink.fillText(title, left, 54);
  const most = Math.max(...stacks.map((s) => laidFilmUm(s.layers, laid)));
  stacks.forEach((stack, i) => {
    let x = left;
    const y = top + i * row + 34;
    ink.font = '24px "Archivo Variable", sans-serif';
    const films = laidFilmsUm(stack.layers, laid);
    stack.layers.forEach((l, j) => {
      const w = (films[j]! / most) * (width - 260);
      ink.fillStyle = fillOf(l, looks[i]?.[j]);
      ink.fillRect(x, y, w + 1, 110);
      ink.fillStyle = '#121212';
      const text = `${l.kind} ${sayCoats(l.coats)}×${units.figure('film', layerFilmUm(l) / l.coats)}`;
      if (w > ink.measureText(text).width) ink.fillText(text, x, y - 8);
      x += w;
    });
    ink.font = '26px monospace';
    ink.fillText(units.say('film', laidFilmUm(stack.layers, laid)), x + 16, y + 64);
    if (stacks.length > 1) ink.fillText(stack.name, left, y + 144);
  });
  return canvas;
}
