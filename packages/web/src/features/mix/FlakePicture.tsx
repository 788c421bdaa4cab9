import { labToScreen, scatterFlakes, type FlakeSize, type Lab } from '@steady-gleam/core';
import { useEffect, useRef } from 'react';

/** CSS pixels in a millimetre (96 in an inch), so that flakes show as large as they are. */
const PX_PER_MM = 96 / 25.4;

const rgb = (lab: Lab): readonly [number, number, number] => labToScreen(lab).srgb as [number, number, number];

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
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const key = JSON.stringify([mix, cover, ground, flake, width, height, seed]);
  useEffect(() => {
    const c = canvas.current!;
    const ratio = Math.max(2, globalThis.devicePixelRatio || 1);
    const scale = PX_PER_MM * ratio;
    c.width = Math.round(width * scale);
    c.height = Math.round(height * scale);
    const ink = c.getContext('2d')!;
    ink.fillStyle = `rgb(${rgb(ground).join(',')})`;
    ink.fillRect(0, 0, c.width, c.height);
    const looks = flake.map(rgb);
    for (const f of scatterFlakes(mix, cover, width, height, seed)) {
      // Most flakes lie near the face; a few catch the lamp, a few look away.
      const at = Math.min(looks.length - 1, Math.floor(f.glint ** 0.6 * looks.length));
      ink.fillStyle = `rgb(${looks[at]!.join(',')})`;
      ink.beginPath();
      const r = f.size / Math.sqrt(3);
      for (let k = 0; k < 6; k++) {
        const a = f.turn + Math.PI / 6 + (k * Math.PI) / 3;
        ink.lineTo((f.x + r * Math.cos(a)) * scale, (f.y + r * Math.sin(a)) * scale);
      }
      ink.fill();
    }
    c.dataset['drawn'] = key;
    // Everything the picture is drawn from is in the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={label}
      style={{ width: width * PX_PER_MM, height: height * PX_PER_MM, display: 'block' }}
    />
  );
}
