import type { Reading } from '../formats/readings';
import { READING_LIMITS as L } from '../formats/readings';

/** Figures that an instrument typed like a keyboard, sorted; or a sentence why they can't be. */
export type Sorted =
  { readonly ok: true; readonly readings: readonly Reading[] } | { readonly ok: false; readonly said: string };

interface Angle {
  readonly incidence: number;
  readonly aspecular: number;
}

const figuresIn = (text: string): number[] =>
  // A comma within a figure is a decimal one where no point is used.
  (text.includes('.') ? text.replace(/,/g, ' ') : text.replace(/(\d),(\d)/g, '$1.$2'))
    .split(/[^\d.+-]+/)
    .filter((f) => /^[+-]?(\d+\.?\d*|\.\d+)$/.test(f))
    .map(Number);

/**
 * Sorts a burst of figures into angles of L*, a*, b*: three to an angle in their usual order, or four with the angle before them;
 * several spots one after the other.
 * @param angles what is awaited, in the instrument's order
 */
export function sortBurst(text: string, angles: readonly Angle[]): Sorted {
  const figures = figuresIn(text);
  const each = 3 * angles.length;
  const no = (said: string): Sorted => ({ ok: false, said: `${said} Nothing was taken.` });
  if (!angles.length || !figures.length) return no('No figures came.');
  const named = figures.length % 4 === 0 && figures.every((f, i) => i % 4 > 0 || angles.some((a) => a.aspecular === f));
  // Four to an angle, and an angle among them that is none of those that are awaited.
  const other = figures.find((f, i) => i % 4 === 0 && !angles.some((a) => a.aspecular === f));
  const seemsNamed =
    figures.length % (4 * angles.length) === 0 &&
    figures.every((f, i) => i % 4 > 0 || (Number.isInteger(f) && f >= L.aspecularMin && f <= L.aspecularMax));
  if (seemsNamed && other !== undefined)
    return no(
      `What came is of ${other}°, and ${angles.map((a) => `${a.aspecular}°`).join(', ')} are awaited. Set the instrument flat, or choose its other angles, and read again.`,
    );
  if (!named && figures.length % each !== 0)
    return no(
      `${figures.length} ${figures.length === 1 ? 'figure' : 'figures'} came, and ${each} make a spot: L*, a*, b* at ${angles.map((a) => `${a.aspecular}°`).join(', ')}. Read again.`,
    );
  const counted = new Map<number, number>();
  const readings: Reading[] = [];
  const step = named ? 4 : 3;
  for (let i = 0; i < figures.length; i += step) {
    const angle = named ? angles.find((a) => a.aspecular === figures[i])! : angles[(i / 3) % angles.length]!;
    const spot = (counted.get(angle.aspecular) ?? 0) + 1;
    counted.set(angle.aspecular, spot);
    const [l, a, b] = figures.slice(i + step - 3, i + step) as [number, number, number];
    if (l < L.lMin || l > L.lMax || Math.abs(a) > L.abMax || Math.abs(b) > L.abMax)
      return no(`L* ${l}, a* ${a}, b* ${b} at ${angle.aspecular}° is no colour.`);
    readings.push({ spot: String(spot), ...angle, l, a, b });
  }
  return { ok: true, readings };
}
