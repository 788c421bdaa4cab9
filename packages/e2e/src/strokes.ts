import type { Page } from '@playwright/test';

/** A stroke of the pointer over the practice panel: cm on the panel, at a speed in cm/s. */
export interface Stroke {
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly speed: number;
}

/** What lies around the panel on the stage, cm. */
const AROUND = { x: 15, y: 9 };

/** Draws strokes on the practice panel, trigger on along each, in their own time. @param widthCm of the panels */
export async function spray(page: Page, strokes: readonly Stroke[], widthCm = 120): Promise<void> {
  const box = (await page.getByTestId('stage').boundingBox())!;
  const px = box.width / (widthCm + 2 * AROUND.x);
  const at = ([x, y]: readonly [number, number]) => [box.x + (x + AROUND.x) * px, box.y + (y + AROUND.y) * px] as const;
  for (const { from, to, speed } of strokes) {
    await page.mouse.move(...at(from));
    await page.mouse.down();
    const seconds = Math.hypot(to[0] - from[0], to[1] - from[1]) / speed;
    const began = Date.now();
    for (;;) {
      const u = Math.min(1, (Date.now() - began) / 1000 / seconds);
      await page.mouse.move(...at([from[0] + u * (to[0] - from[0]), from[1] + u * (to[1] - from[1])]));
      if (u === 1) break;
    }
    await page.mouse.up();
  }
}

/** Passes over a panel of 70 cm height, there and back. */
export function passes(q: {
  readonly pitch: number;
  readonly speed: number;
  /** Past the edges; below zero inside them. */
  readonly margin: number;
  readonly span?: readonly [number, number];
}): Stroke[] {
  const [from, to] = q.span ?? [0, 120];
  const strokes: Stroke[] = [];
  for (let y = 0, k = 0; y <= 70 + q.pitch / 2; y += q.pitch, k++) {
    const [a, b] = [from - q.margin, to + q.margin];
    strokes.push({ from: [k % 2 ? b : a, y], to: [k % 2 ? a : b, y], speed: q.speed });
  }
  return strokes;
}
