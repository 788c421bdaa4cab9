import { labToLch, type Lab } from '../colour/lab';

export interface DifferenceWords {
  readonly dL: number;
  readonly dC: number;
  readonly dH: number;
  /** For instance "lighter 0.8, bluer 0.6", or "level". */
  readonly text: string;
}

const HUE_NAMES = ['redder', 'yellower', 'greener', 'bluer'] as const;
const HUE_AXES = [0, 90, 180, 270] as const;

/** Below this many units a member of the difference is not worth a word. */
const WORTH_SAYING = 0.35;
/** Below this chroma there is no hue to speak of; the a*, b* direction is named instead. */
const NEUTRAL_CHROMA = 5;

const angleBetween = (p: number, q: number): number => Math.abs(((p - q + 540) % 360) - 180);

/** The hue name lying in the direction the sample turned, seen from the reference. */
function turnedToward(referenceHue: number, positive: boolean): string {
  const ahead = referenceHue + (positive ? 90 : -90);
  let best = 0;
  HUE_AXES.forEach((axis, i) => {
    if (angleBetween(axis, ahead) < angleBetween(HUE_AXES[best]!, ahead)) best = i;
  });
  return HUE_NAMES[best]!;
}

/** Signed differences of a sample from a reference, in CIELAB units, and what a painter would say of them. */
export function describeDifference(reference: Lab, sample: Lab): DifferenceWords {
  const [l1, c1, h1] = labToLch(reference);
  const [l2, c2, h2] = labToLch(sample);
  const dL = l2 - l1;
  const dC = c2 - c1;
  const turn = ((h2 - h1 + 540) % 360) - 180;
  const dH = 2 * Math.sqrt(c1 * c2) * Math.sin((turn / 2) * (Math.PI / 180));
  const words: { size: number; text: string }[] = [];
  const say = (size: number, word: string) => {
    if (Math.abs(size) >= WORTH_SAYING)
      words.push({ size: Math.abs(size), text: `${word} ${Math.abs(size).toFixed(1)}` });
  };
  say(dL, dL > 0 ? 'lighter' : 'darker');
  if (Math.max(c1, c2) < NEUTRAL_CHROMA) {
    const da = sample[1] - reference[1];
    const db = sample[2] - reference[2];
    say(da, da > 0 ? 'redder' : 'greener');
    say(db, db > 0 ? 'yellower' : 'bluer');
  } else {
    say(dC, dC > 0 ? 'stronger' : 'weaker');
    say(dH, turnedToward(h1, dH > 0));
  }
  words.sort((p, q) => q.size - p.size);
  return {
    dL,
    dC,
    dH,
    text: words.length
      ? words
          .slice(0, 2)
          .map((w) => w.text)
          .join(', ')
      : 'level',
  };
}
