import { exposureFor, labToScreen, type Lab } from '@steady-gleam/core/colour';
import { sayAngle, type Angle } from './angles';

/** CSS colour of a Lab under one exposure. */
export function cssOf(lab: Lab, exposure = 1): string {
  const [r, g, b] = labToScreen(lab, undefined, exposure).srgb;
  return `rgb(${r},${g},${b})`;
}

/** Whether a screen can show a Lab under one exposure. */
export function fitsScreen(lab: Lab, exposure = 1): boolean {
  return labToScreen(lab, undefined, exposure).inGamut;
}

/** Ink that can be read on a colour. */
export function inkOn(lab: Lab, exposure = 1): string {
  const [r, g, b] = labToScreen(lab, undefined, exposure).srgb.map((v) => (v / 255) ** 2.2) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b > 0.2 ? '#101010' : '#f4f4f4';
}

/** One exposure an angle: everything compared there is scaled together so that nothing clips. */
export function exposuresByAngle(colours: readonly (readonly Lab[])[]): number[] {
  const angles = colours[0]?.length ?? 0;
  return Array.from({ length: angles }, (_, g) => exposureFor(colours.map((c) => c[g]!)));
}

/** A note for angles that were dimmed to fit the screen, or null. */
export function dimmedNote(angles: readonly Angle[], exposures: readonly number[]): string | null {
  const dimmed = angles.filter((_, i) => exposures[i]! < 0.995);
  if (!dimmed.length) return null;
  const list = dimmed.map(sayAngle);
  const said = list.length > 1 ? `${list.slice(0, -1).join(', ')} and ${list.at(-1)}` : list[0];
  return `${said} ${list.length > 1 ? 'are' : 'is'} dimmed to fit the screen.`;
}
