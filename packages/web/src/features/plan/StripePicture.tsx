import { exposureFor, labToScreen } from '@steady-gleam/core/colour';
import { useEffect, useRef } from 'react';
import type { StripesLook } from '@steady-gleam/core/looks';

/** The panel as it would look at one angle: every place in the colour of its film. */
export function StripePicture({
  look,
  angle,
  label,
  height,
}: {
  look: StripesLook;
  angle: number;
  label: string;
  height: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const c = canvas.current!;
    c.width = look.columns;
    c.height = look.rows;
    const ink = c.getContext('2d')!;
    const image = ink.createImageData(look.columns, look.rows);
    const pixels = new Uint32Array(image.data.buffer);
    const labs = look.lut.map((l) => l[angle]!);
    const exposure = exposureFor(labs);
    // Between the looks of the table colours run on, so that no step is drawn that the film has not.
    const colours = labs.map((l) => labToScreen(l, undefined, exposure).srgb);
    const last = colours.length - 1;
    for (let i = 0; i < pixels.length; i++) {
      const at = Math.min(last - 1e-6, Math.max(0, ((look.film[i]! - look.from) / (look.to - look.from)) * last));
      const [k, t] = [Math.floor(at), at - Math.floor(at)];
      const [a, b] = [colours[k]!, colours[k + 1] ?? colours[k]!];
      // Half a step of noise by place keeps the screen's own steps from looking like stripes.
      const dither = (((i * 2654435761) >>> 16) & 255) / 255 - 0.5;
      const mix = (n: 0 | 1 | 2) => Math.max(0, Math.min(255, Math.round(a[n] + t * (b[n] - a[n]) + dither)));
      pixels[i] = ((255 << 24) | (mix(2) << 16) | (mix(1) << 8) | mix(0)) >>> 0;
    }
    ink.putImageData(image, 0, 0);
    c.dataset['drawn'] = 'yes';
  }, [look, angle]);
  return <canvas ref={canvas} role="img" aria-label={label} style={{ width: '100%', height, display: 'block' }} />;
}
