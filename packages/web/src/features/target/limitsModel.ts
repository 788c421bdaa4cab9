import type { TargetAngle } from '@steady-gleam/core/matching';
import { sayAngle } from '../../shared/angles';

/** Beside a limit the noise of a target has to be this many times smaller to prove it: nine in ten. */
const PROVES = 1.645;
/** Spots a painter is asked for at once. */
const STEP_SPOTS = 3;

/** Name of an angle's field in a form, whose paths part at dots. */
export const fieldAt = (aspecular: number): string => `at${String(aspecular).replace('.', '_')}`;

/** What the target can't prove for its own scatter, in words; null where it can. */
export function sayNotProven(target: readonly TargetAngle[], noise: readonly number[], spots: number): string | null {
  const worst = target
    .map((t, g) => ({ t, over: (PROVES * noise[g]!) / t.tolerance }))
    .reduce((a, b) => (b.over > a.over ? b : a), { t: target[0]!, over: 0 });
  if (worst.over <= 1) return null;
  const needed = Math.ceil((spots * worst.over ** 2 - spots) / STEP_SPOTS) * STEP_SPOTS;
  return `This target can’t prove ${worst.t.tolerance.toFixed(1)} at ${sayAngle(worst.t)}: read ${needed} more spots.`;
}
