import { gunsApi, jobsApi, materialsApi, productsApi } from '@steady-gleam/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { call } from '../../shared/apiClient';
import type { BoothSnapshot } from '../../shared/log/device';
import { keepSnapshot, readSnapshot } from '../../shared/log/logStore';
import { jobKey } from '../../shared/useJob';
import { useLog, type JobLog } from '../../shared/log/useLog';
import { tellMaterials } from '../../worker/materialsOf';

/** The job is looked at for changes made elsewhere this often, ms. */
const RELOAD_MS = 10_000;

export interface Booth {
  readonly snapshot: BoothSnapshot | null;
  readonly failure: string | null;
  readonly log: JobLog;
  /** Takes the job anew at once: something of it was changed here. */
  readonly reload: () => void;
}

/**
 * A job in the booth: loaded from the server or, while it is away, from this device; taps are kept first and sent then.
 * @param finishId of whose card it is the run; null for the job's own
 */
export function useBooth(jobId: string, finishId: string | null): Booth {
  const [snapshot, setSnapshot] = useState<BoothSnapshot | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const log = useLog(finishId ?? jobId, finishId !== null);
  const kept = finishId === null ? jobId : `${jobId}/${finishId}`;
  const [round, setRound] = useState(0);
  const client = useQueryClient();

  useEffect(() => {
    let gone = false;
    let shown = '';
    // What this device has is shown at once; what the server has takes its place.
    void readSnapshot(kept).then((old) => {
      if (old && !gone) setSnapshot((now) => now ?? old);
    });
    const load = async () => {
      try {
        const [detail, own, products, guns] = await Promise.all([
          finishId === null
            ? call(jobsApi.read, { params: { id: jobId } })
            : call(jobsApi.readWith, { params: { id: jobId, finishId } }),
          call(materialsApi.list),
          call(productsApi.list),
          call(gunsApi.list),
        ]);
        const fresh = { detail, own, products, guns };
        // The log has its own way here; all else is taken anew when it was changed, also in mid-run.
        const key = JSON.stringify({ ...fresh, detail: { ...detail, events: [] } });
        if (gone || key === shown) return;
        shown = key;
        // The other pages of the job know it too, should the server go away.
        if (finishId === null) client.setQueryData(jobKey(jobId), detail);
        await keepSnapshot(kept, fresh);
        if (!gone) setSnapshot(fresh);
      } catch (error) {
        if (shown) return;
        const old = await readSnapshot(kept);
        if (gone) return;
        if (old) setSnapshot((now) => now ?? old);
        else setFailure(error instanceof Error ? error.message : String(error));
      }
    };
    void load();
    const timer = setInterval(() => void load(), RELOAD_MS);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [jobId, finishId, kept, round, client]);

  useEffect(() => {
    if (snapshot) tellMaterials(snapshot.own.map((m) => m.material));
  }, [snapshot]);

  return { snapshot, failure: snapshot ? log.fault : failure, log, reload: () => setRound((n) => n + 1) };
}
