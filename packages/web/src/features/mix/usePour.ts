import {
  goOnFrom,
  isOnScale,
  nextPart,
  startPour,
  weigh,
  type OnScale,
  type PourStands,
  type ScalePart,
  type Weighed,
} from '@steady-gleam/core/devices';
import { useEffect, useMemo, useState } from 'react';

const keyOf = (cup: string): string => `steady-gleam.pour.${cup}`;

/** What this device kept of a cup; null where it kept nothing that fits. */
export function keptPour(cup: string, parts: number): OnScale | null {
  try {
    const given = JSON.parse(localStorage.getItem(keyOf(cup)) ?? 'null') as unknown;
    return isOnScale(given, parts) ? given : null;
  } catch {
    return null;
  }
}

/**
 * A cup on the scale: what is in it of every part, kept on this device through reloads and pulled cables.
 * @param cup which one: of a job and a layer
 */
export function usePour(cup: string, parts: readonly ScalePart[], weighed: Weighed | null) {
  const [on, setOn] = useState(() => keptPour(cup, parts.length));
  useEffect(() => {
    if (on) localStorage.setItem(keyOf(cup), JSON.stringify(on));
    else localStorage.removeItem(keyOf(cup));
  }, [cup, on]);
  const fits = on && on.poured.length === parts.length ? on : null;
  const seen = useMemo(() => (fits && weighed ? weigh(parts, fits, weighed) : null), [parts, fits, weighed]);
  // What rests is taken in; a weight that was taken in already changes nothing.
  if (seen && seen.on !== fits) setOn(seen.on);
  const stands: PourStands | null = seen?.stands ?? null;
  return {
    on: fits,
    stands,
    begin: () => weighed && setOn(startPour(parts, weighed.grams)),
    next: () => setOn((now) => now && nextPart(parts, now)),
    goOn: () => setOn((now) => now && weighed && goOnFrom(now, weighed.grams)),
    empty: () => setOn(null),
  };
}

export type PourNow = ReturnType<typeof usePour>;
