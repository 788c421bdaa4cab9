import { type Job, type Mixing, mixingSchema, START_MIXING } from '@steady-gleam/contracts';
import { useRef, useState } from 'react';
import { checkWith, type Faults } from '../../shared/checkWith';
import { shownOf, useChangeJob, type Changed } from '../../shared/useJob';

/** How a job is mixed, as it is being changed: checked at its fields, kept one change after the other. */
export function useMixing(job: Job) {
  const change = useChangeJob(job.id);
  const [faults, setFaults] = useState<Faults>({});
  const changed = useRef<Changed<Mixing> | null>(null);
  const mixing = job.mixing ?? START_MIXING;
  const setMixing = (more: (now: Mixing) => Partial<Mixing>) => {
    // What was set a moment ago and is still on its way counts already, or the next change would undo it.
    const now = shownOf(job, changed.current, mixing);
    const own = more(now);
    const next = checkWith(mixingSchema, { ...now, ...own });
    // What is wrong in another field still stands there.
    setFaults((old) => {
      const others = Object.entries(old).filter(([path]) => !(path.split('.')[0]! in own));
      return { ...Object.fromEntries(others), ...(next.ok ? {} : next.faults) };
    });
    if (!next.ok || JSON.stringify(next.value) === JSON.stringify(now)) return;
    const sent = { value: next.value, keptAs: null };
    changed.current = sent;
    const then = (to: Changed<Mixing> | null) => {
      if (changed.current === sent) changed.current = to;
    };
    change.mutate(
      { version: job.version, mixing: next.value },
      { onSuccess: ({ version }) => then({ ...sent, keptAs: version }), onError: () => then(null) },
    );
  };
  return { mixing, setMixing, faults, failure: change.error?.message ?? null };
}

/** A record without one of its keys. */
export const without = <T>(record: Readonly<Record<string, T>> | undefined, key: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record ?? {}).filter(([k]) => k !== key));
