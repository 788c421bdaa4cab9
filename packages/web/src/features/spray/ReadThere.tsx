import type { JobDetail, ReadingSet } from '@steady-gleam/contracts';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { useAddReadings } from '../../shared/useJob';
import type { Live } from './useLive';

/** Readings at a place of the job, kept as a look at it. */
export function ReadThere({
  detail,
  live,
  place,
  coats,
  state,
  onKept,
}: {
  detail: JobDetail;
  live: Live;
  place: { readonly name: string; readonly areaIds: readonly string[] };
  coats: number;
  state: ReadingSet['state'];
  onKept: () => void;
}) {
  const { job, spots } = detail;
  const add = useAddReadings(job);
  return (
    <ReadingsForm
      state={state}
      kind="spot"
      rungCoats={coats}
      label={place.name}
      objectId={live.objectId}
      angles={live.count.target}
      saveLabel="Keep this look"
      simulated={job.tryOut ? { jobId: job.id, areaIds: place.areaIds } : null}
      narrow
      known={spots}
      onSave={async (s) => {
        await add.mutateAsync(s);
        onKept();
      }}
    />
  );
}
