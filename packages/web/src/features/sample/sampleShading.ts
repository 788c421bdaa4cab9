import { EVEN, LARGEST_INCIDENCE, LARGEST_TILT } from '@steady-gleam/core/optics';

/** Bodies a finish can be looked at on. Half extents in picture units: the picture is 3.2 wide and 2 high. */
export type BodyShape = 'shell' | 'tank' | 'card';
export const SHAPES: readonly { readonly id: BodyShape; readonly name: string }[] = [
  { id: 'shell', name: 'Shell' },
  { id: 'tank', name: 'Tank' },
  { id: 'card', name: 'Flat card' },
];
export const ASPECT = 1.6;

/** What a picture of a sample is made of. */
export interface SampleScene {
  readonly prediction: Float32Array;
  readonly target: Float32Array | null;
  readonly shape: BodyShape;
  /** Lamp over the body, picture units. */
  readonly lamp: readonly [number, number];
  readonly exposure: number;
  /** Contrast of single grains, 0..1. */
  readonly grain: number;
  /** Width of a grain in pixels of the picture: larger flakes, larger grains. */
  readonly grainPx: number;
}

/** How high the lamp hangs and how far the eye is, picture units. */
export const LAMP_HEIGHT = 3.2;
export const EYE = 7;
const FILM_INDEX = 1.5;

/** Exposure at which the brightest part of the body, some degrees off the mirror, just fits the screen. */
export function sampleExposure(tables: readonly (Float32Array | null)[]): number {
  let peak = 0.3;
  // Below this column lies the mirror direction itself, which may clip as a highlight does.
  const from = Math.round(Math.sqrt(5 / LARGEST_TILT) * (EVEN.tilts - 1));
  for (const table of tables) {
    if (!table) continue;
    for (let r = 0; r < EVEN.incidences * 0.7; r++) {
      for (let c = from; c < EVEN.tilts; c++) {
        for (let k = 0; k < 3; k++) peak = Math.max(peak, table[(r * EVEN.tilts + c) * 3 + k]!);
      }
    }
  }
  return 1 / peak;
}

type Vec = [number, number, number];
const dot = (a: Vec, b: Vec) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const unit = (a: Vec): Vec => {
  const n = Math.hypot(...a);
  return [a[0] / n, a[1] / n, a[2] / n];
};

/** Point and normal of the body at a place in the picture; null beside it. */
export function bodyAt(shape: BodyShape, x: number, y: number): { p: Vec; n: Vec } | null {
  if (shape === 'shell') {
    const [a, b, c] = [1.42, 0.88, 0.8];
    const rest = 1 - (x / a) ** 2 - (y / b) ** 2;
    if (rest <= 0) return null;
    const z = c * Math.sqrt(rest);
    return { p: [x, y, z], n: unit([x / (a * a), y / (b * b), z / (c * c)]) };
  }
  if (shape === 'tank') {
    const [r, half] = [0.7, 0.78];
    const ex = Math.abs(x) > half ? Math.abs(x) - half : 0;
    const rest = r * r - ex * ex - y * y;
    if (rest <= 0) return null;
    const z = Math.sqrt(rest);
    return { p: [x, y, z], n: unit([Math.sign(x) * ex, y, z]) };
  }
  if (Math.abs(x) > 1.4 || Math.abs(y) > 0.86) return null;
  return { p: [x, y, 0], n: [0, 0, 1] };
}

function look(table: Float32Array, incidence: number, tilt: number, k: number): number {
  const row = Math.min(1, incidence / LARGEST_INCIDENCE) * (EVEN.incidences - 1);
  const column = Math.sqrt(Math.min(1, tilt / LARGEST_TILT)) * (EVEN.tilts - 1);
  const r0 = Math.min(EVEN.incidences - 2, Math.floor(row));
  const c0 = Math.min(EVEN.tilts - 2, Math.floor(column));
  const [u, v] = [column - c0, row - r0];
  const at = (r: number, c: number) => table[(r * EVEN.tilts + c) * 3 + k]!;
  return (
    (at(r0, c0) * (1 - u) + at(r0, c0 + 1) * u) * (1 - v) + (at(r0 + 1, c0) * (1 - u) + at(r0 + 1, c0 + 1) * u) * v
  );
}

/** Fixed noise of the grains, 0..1 a cell. */
export function grainAt(x: number, y: number): number {
  const s = Math.sin(x * 127.1 + y * 311.7) * 43758.5453;
  return s - Math.floor(s);
}

/** Linear colour of the body at a place, from the tables; null beside it. The same sum as the shader's. */
export function shade(scene: SampleScene, x: number, y: number, cell: number): Vec | null {
  const body = bodyAt(scene.shape, x, y);
  if (!body) return null;
  const { p, n } = body;
  const toLamp = unit([scene.lamp[0] - p[0], scene.lamp[1] - p[1], LAMP_HEIGHT - p[2]]);
  const toEye = unit([-p[0], -p[1], EYE - p[2]]);
  const ci = dot(n, toLamp);
  const cv = Math.max(0.02, dot(n, toEye));
  const table = x < 0 && scene.target ? scene.target : scene.prediction;
  const inside = (d: Vec, c: number): Vec => {
    const down = Math.sqrt(1 - (1 - c * c) / FILM_INDEX ** 2);
    return [0, 1, 2].map((k) => (d[k]! - n[k]! * c) / FILM_INDEX + n[k]! * down) as Vec;
  };
  const lit = Math.max(0, ci);
  const a = inside(toLamp, lit);
  const b = inside(toEye, cv);
  const half = unit([a[0] + b[0], a[1] + b[1], a[2] + b[2]]);
  const tilt = (Math.acos(Math.min(1, Math.max(-1, dot(half, n)))) * 180) / Math.PI;
  const incidence = (Math.acos(Math.min(1, lit)) * 180) / Math.PI;
  const outer = unit([toLamp[0] + toEye[0], toLamp[1] + toEye[1], toLamp[2] + toEye[2]]);
  const gloss = ci > 0 ? 0.7 * Math.max(0, dot(outer, n)) ** 900 : 0;
  // Grains show where flakes mirror the lamp, and fade toward the flop.
  const noise = scene.grain * Math.exp(-tilt / 14) * (grainAt(Math.floor(x / cell), Math.floor(y / cell)) * 2 - 1);
  return [0, 1, 2].map((k) => {
    const lamp = look(table, incidence, tilt, k) * lit;
    const sky = look(table, 30, 18, k) * (0.1 + 0.1 * n[2]);
    return (lamp * (1 + noise) + sky) * scene.exposure + gloss;
  }) as Vec;
}

const encode = (v: number): number => {
  const c = Math.min(1, Math.max(0, v));
  return 255 * (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);
};

/** Paints a sample without WebGL, two by two samples a pixel at the rim. */
export function paintSample(ink: CanvasRenderingContext2D, scene: SampleScene, width: number, height: number): void {
  const image = ink.createImageData(width, height);
  const px = (2 * ASPECT) / width;
  const cell = px * scene.grainPx;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const x = (i + 0.5) * px - ASPECT;
      const y = 1 - (j + 0.5) * ((2 * 1) / height);
      const colour = shade(scene, x, y, cell);
      if (!colour) continue;
      const o = (j * width + i) * 4;
      const rim = [-0.5, 0.5].flatMap((dx) =>
        [-0.5, 0.5].map((dy) => (bodyAt(scene.shape, x + dx * px, y + dy * px) ? 1 : 0)),
      );
      for (let k = 0; k < 3; k++) image.data[o + k] = encode(colour[k]!);
      image.data[o + 3] = (255 * rim.reduce<number>((s, v) => s + v, 0)) / 4;
    }
  }
  ink.putImageData(image, 0, 0);
}
