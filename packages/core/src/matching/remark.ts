import { type Lab, labToLch } from '../colour/lab';
import type { TargetAngle } from './target';

/** What a painter says of a sprayed card: how far it is off, seen where. */
export interface Remark {
  readonly view: 'face' | 'flop' | 'all over';
  readonly off: 'redder' | 'yellower' | 'greener' | 'bluer' | 'lighter' | 'darker' | 'stronger' | 'weaker';
  readonly amount: 'a touch' | 'clearly' | 'far';
}

/** CIELAB units behind the words; ours. */
export const AMOUNT: Record<Remark['amount'], number> = { 'a touch': 1, clearly: 2.5, far: 5 };
/** Aspecular angles a view stands for. */
const VIEWS: Record<Remark['view'], (aspecular: number) => boolean> = {
  face: (a) => a <= 30,
  flop: (a) => a >= 60,
  'all over': () => true,
};
/** The sprayed colour that a remark describes: the target, moved where and as far as was said. */
export function remarkToLabs(target: readonly TargetAngle[], remarks: readonly Remark[]): Lab[] {
  return target.map((t) => {
    let [l, a, b] = t.lab;
    for (const { view, off, amount } of remarks) {
      if (!VIEWS[view](t.aspecular)) continue;
      const d = AMOUNT[amount];
      const [, c, h] = labToLch(t.lab);
      const along = (sign: number) => {
        // Neutral targets have no strength to speak of.
        if (c < 1) return;
        a += sign * d * Math.cos((h * Math.PI) / 180);
        b += sign * d * Math.sin((h * Math.PI) / 180);
      };
      if (off === 'redder') a += d;
      else if (off === 'greener') a -= d;
      else if (off === 'yellower') b += d;
      else if (off === 'bluer') b -= d;
      else if (off === 'lighter') l += d;
      else if (off === 'darker') l = Math.max(0, l - d);
      else along(off === 'stronger' ? 1 : -1);
    }
    return [l, a, b];
  });
}
