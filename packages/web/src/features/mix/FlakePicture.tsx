import { labToScreen, type Lab } from '@steady-gleam/core/colour';
import { paintFlakes, type FlakeSize } from '@steady-gleam/core/mixing';
import { useEffect, useRef } from 'react';

/** A colour as a pixel of image data: red in the lowest byte. */
const pixelOf = (lab: Lab): number => {
  const [r, g, b] = labToScreen(lab).srgb.map(Math.round) as [number, number, number];
  return ((255 << 24) | (b << 16) | (g << 8) | r) >>> 0;
};

/** Random flakes at their real size over a ground; the same seed shows the same panel. */
export function FlakePicture({
  mix,
  cover,
  ground,
  flake,
  width,
  height,
  seed,
  label,
  pxPerMm,
  zoom = 1,
}: {
  mix: readonly FlakeSize[];
  cover: number;
  ground: Lab;
  /** The flakes' look from flop to face. */
  flake: readonly Lab[];
  /** mm. */
  width: number;
  height: number;
  seed: number;
  label: string;
  /** CSS pixels in a millimetre of this screen. */
  pxPerMm: number;
  /** Times larger than life; the picture keeps its size and shows less. */
  zoom?: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const key = JSON.stringify([mix, cover, ground, flake, width, height, seed, zoom, pxPerMm]);
  useEffect(() => {
    const c = canvas.current!;
    const ratio = Math.max(2, globalThis.devicePixelRatio || 1);
    c.width = Math.round(width * pxPerMm * ratio);
    c.height = Math.round(height * pxPerMm * ratio);
    const ink = c.getContext('2d')!;
    const image = ink.createImageData(c.width, c.height);
    const pixels = new Uint32Array(image.data.buffer);
    pixels.fill(pixelOf(ground));
    const looks = flake.map(pixelOf);
    // Most flakes lie near the face; a few catch the lamp, a few look away.
    const colourOf = (glint: number) => looks[Math.min(looks.length - 1, Math.floor(glint ** 0.6 * looks.length))]!;
    paintFlakes(pixels, c.width, pxPerMm * ratio * zoom, { mix, cover, seed }, colourOf);
    ink.putImageData(image, 0, 0);
    c.dataset['drawn'] = key;
    // Everything the picture is drawn from is in the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={label}
      style={{ width: width * pxPerMm, height: height * pxPerMm, display: 'block' }}
    />
  );
}
