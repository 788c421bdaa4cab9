import { type Job, type Mixing, mixingSchema, START_MIXING } from '@steady-gleam/contracts';
import { useRef, useState } from 'react';
import { useChangeJob } from '../../shared/useJob';

/** How a job is mixed, as it is being changed: checked at its fields, kept one change after the other. */
export function useMixing(job: Job) {
  const change = useChangeJob(job.id);
  const [faults, setFaults] = useState<Record<string, string>>({});
  const underWay = useRef<Mixing | null>(null);
  const mixing = job.mixing ?? START_MIXING;
  const setMixing = (more: (now: Mixing) => Partial<Mixing>) => {
    // What was set a moment ago and is still on its way counts already, or the next change would undo it.
    const now = underWay.current ?? mixing;
    try {
      const next = mixingSchema.validateSync({ ...now, ...more(now) }, { abortEarly: false });
      setFaults({});
      if (JSON.stringify(next) === JSON.stringify(now)) return;
      underWay.current = next;
      change.mutate(
        { version: job.version, mixing: next },
        {
          onSettled: () => {
            underWay.current = null;
          },
        },
      );
    } catch (error) {
      const { inner } = error as { inner: { path?: string; message: string }[] };
      setFaults(Object.fromEntries(inner.map((e) => [e.path ?? '', e.message])));
    }
  };
  return { mixing, setMixing, faults, failure: change.error?.message ?? null };
}

/** A record without one of its keys. */
export const without = <T>(record: Readonly<Record<string, T>> | undefined, key: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record ?? {}).filter(([k]) => k !== key));
