import jsqr from 'jsqr';
import { inflateSync } from 'node:zlib';

/** px of a module of the code as it is drawn for reading. */
const MODULE = 4;
/** Modules of quiet around it. */
const QUIET = 4;

/** The text of the QR code on a PDF's page, read from the squares it is drawn with; null where there is none. */
export function qrOf(pdf: Buffer): string | null {
  const squares: { x: number; y: number; size: number }[] = [];
  for (let at = 0; ;) {
    const start = pdf.indexOf('stream', at);
    if (start < 0) break;
    const from = pdf[start + 6] === 0x0d ? start + 8 : start + 7;
    const end = pdf.indexOf('endstream', from);
    if (end < 0) break;
    at = end + 9;
    let text = '';
    try {
      text = inflateSync(pdf.subarray(from, end)).toString('latin1');
    } catch {
      continue;
    }
    for (const [, x, y, w, h] of text.matchAll(/(-?[\d.]+) (-?[\d.]+) ([\d.]+) (-?[\d.]+) re/g))
      if (Math.abs(Number(w) - Math.abs(Number(h))) < 0.02)
        squares.push({ x: Number(x), y: Number(y), size: Number(w) });
  }
  // Its modules are most of the squares, all of one size.
  const sizes = squares.map((s) => s.size.toFixed(2));
  const most = [...new Set(sizes)].sort(
    (a, b) => sizes.filter((s) => s === b).length - sizes.filter((s) => s === a).length,
  )[0];
  const modules = squares.filter((s) => s.size.toFixed(2) === most);
  if (!modules.length) return null;
  const size = modules[0]!.size;
  const [left, top] = [Math.min(...modules.map((m) => m.x)), Math.min(...modules.map((m) => m.y))];
  const places = modules.map((m) => [Math.round((m.x - left) / size), Math.round((m.y - top) / size)] as const);
  const side = (Math.max(...places.flat()) + 1 + 2 * QUIET) * MODULE;
  const picture = new Uint8ClampedArray(side * side * 4).fill(255);
  for (const [col, row] of places)
    for (let dy = 0; dy < MODULE; dy++)
      for (let dx = 0; dx < MODULE; dx++) {
        const at = (((row + QUIET) * MODULE + dy) * side + (col + QUIET) * MODULE + dx) * 4;
        picture.fill(0, at, at + 3);
      }
  // Compiled for the runner its export lies a step deeper, which its types don't say.
  const read = (jsqr as unknown as { default?: typeof jsqr }).default ?? jsqr;
  return read(picture, side, side)?.data ?? null;
}
