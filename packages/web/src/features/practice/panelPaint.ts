import { exposureFor, labToScreen, type Lab } from '@steady-gleam/core/colour';
import type { Patch } from '@steady-gleam/core/practice';

/** Steps of the table of colours. */
const STEPS = 2048;

/** Colours of a film at one angle, for the screen: from no film to the most. */
export interface FilmColours {
  readonly most: number;
  readonly pixels: Uint32Array;
}

/** Colours by film, run on between the looks so that no step is drawn that the film has not. @param look [film][angle] */
export function filmColours(look: readonly (readonly Lab[])[], angle: number, most: number): FilmColours {
  const labs = look.map((l) => l[angle]!);
  const exposure = exposureFor(labs);
  const colours = labs.map((l) => labToScreen(l, undefined, exposure).srgb);
  const last = colours.length - 1;
  const pixels = Uint32Array.from({ length: STEPS }, (_, i) => {
    const at = (i / (STEPS - 1)) * last;
    const k = Math.min(last - 1, Math.floor(at));
    const u = at - k;
    const mix = (c: 0 | 1 | 2) => Math.round(colours[k]![c] + u * (colours[k + 1]![c] - colours[k]![c]));
    return ((255 << 24) | (mix(2) << 16) | (mix(1) << 8) | mix(0)) >>> 0;
  });
  return { most, pixels };
}

/** A canvas that shows the film of earlier coats with that of the coat over it. */
export interface PanelPaint {
  /** Draws a part, or all of it. */
  readonly draw: (base: Float64Array, film: Float64Array, colours: FilmColours, patch?: Patch) => void;
}

export function createPanelPaint(canvas: HTMLCanvasElement, columns: number, rows: number): PanelPaint {
  canvas.width = columns;
  canvas.height = rows;
  const ink = canvas.getContext('2d')!;
  const image = ink.createImageData(columns, rows);
  const out = new Uint32Array(image.data.buffer);
  return {
    draw: (base, film, { most, pixels }, patch = { left: 0, top: 0, right: columns, bottom: rows }) => {
      const scale = (STEPS - 1) / most;
      for (let j = patch.top; j < patch.bottom; j++)
        for (let i = patch.left; i < patch.right; i++) {
          const at = j * columns + i;
          out[at] = pixels[Math.min(STEPS - 1, Math.round((base[at]! + film[at]!) * scale))]!;
        }
      ink.putImageData(image, 0, 0, patch.left, patch.top, patch.right - patch.left, patch.bottom - patch.top);
    },
  };
}
