import { withCount, type Recipe } from '@steady-gleam/core/finishes';
import { memo, useMemo } from 'react';
import { MOST_COMPARED, useCompareList } from '../../shared/compareList';
import { dimmedNote } from '../../shared/screenColour';
import type { PageDetail } from '../../shared/useJob';
import { cellOf, mapExposures } from './mapModel';
import { ProbePanel } from './ProbePanel';
import type { MapRoom } from './useMapRoom';
import type { ShownMap } from './useMatchMap';

interface MapSideProps {
  readonly detail: PageDetail;
  readonly shown: ShownMap;
  readonly settled: boolean;
  readonly at: NonNullable<MapRoom['at']>;
  readonly target: MapRoom['target'];
  readonly design: MapRoom['design'];
  readonly busy: boolean;
  readonly onPick: (pick: Recipe) => void;
}

/** What follows from the place under the probe, and the way on from it. */
export const MapSide = memo(function MapSide(props: MapSideProps) {
  const { detail, shown, settled, at, target, design, busy, onPick } = props;
  const { job } = detail;
  const exposures = useMemo(() => mapExposures(shown.map, target), [shown.map, target]);
  const compare = useCompareList(job.id);
  const { strength, style, controlCoats } = shown.mix;
  const candidate = withCount(job.family, { groundId: at.groundId, coats: 0, strength, style, controlCoats }, at.coats);
  const use = async () => {
    // What was chosen becomes the target; then it is picked like any other.
    if (design.on) await design.keep(cellOf(shown.map, at.groundId, at.coats).labs);
    onPick(candidate);
  };
  return (
    <ProbePanel
      job={job}
      mix={shown.mix}
      cell={cellOf(shown.map, at.groundId, at.coats)}
      groundId={at.groundId}
      target={target}
      light={shown.light}
      settled={settled}
      note={dimmedNote(target, exposures)}
      busy={busy || design.busy}
      onUse={() => void use().catch(() => undefined)}
      designing={design.on}
      compared={compare.has(candidate)}
      compareFull={compare.list.length >= MOST_COMPARED}
      onCompare={() => compare.toggle(candidate)}
    />
  );
});
