import { linearOfByte, exposureFor, labToScreen, type Lab } from '@steady-gleam/core/colour';
import { sayList } from '@steady-gleam/core/jobs';
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

/** Inks by their relative luminance; the softer ones are taken where they can be read. */
const INKS = [
  ['#101010', 0.0052],
  ['#f4f4f4', 0.9047],
  ['#000000', 0],
  ['#ffffff', 1],
] as const;
/** Contrast that small figures need (WCAG 2.2, level AA). */
const READABLE = 4.5;

/** Ink that can be read on a colour. */
export function inkOn(lab: Lab, exposure = 1): string {
  const [r, g, b] = labToScreen(lab, undefined, exposure).srgb.map((v) => linearOfByte(Math.round(v))) as [
    number,
    number,
    number,
  ];
  const under = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const contrast = (ink: number) => (Math.max(ink, under) + 0.05) / (Math.min(ink, under) + 0.05);
  const soft = INKS.slice(0, 2).reduce((a, c) => (contrast(c[1]) > contrast(a[1]) ? c : a));
  if (contrast(soft[1]) >= READABLE) return soft[0];
  return INKS.slice(2).reduce((a, c) => (contrast(c[1]) > contrast(a[1]) ? c : a))[0];
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
  return `${sayList(dimmed.map(sayAngle))} ${dimmed.length > 1 ? 'are' : 'is'} dimmed to fit the screen.`;
}
