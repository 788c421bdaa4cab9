import { Button, Typography } from '@mui/material';
import { countsControl, FAMILIES, STYLES, type Recipe } from '@steady-gleam/core/finishes';
import { findMix } from '@steady-gleam/core/materials';
import { useCallback, useDeferredValue, useEffect, useMemo, useRef } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { angleKey } from '../../shared/angles';
import { Bench } from '../../shared/Bench';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { useChangeJob, useJob, type PageDetail } from '../../shared/useJob';
import { useWide } from '../../shared/useWide';
import { FoldedRows, useFoldedMap } from './FoldedRows';
import { DesignAnswer, MapAnswer } from './MapAnswer';
import { MapControls } from './MapControls';
import { MapFiles } from './MapFiles';
import { MapGrid } from './MapGrid';
import { MapSide } from './MapSide';
import { PicksBar } from './PicksBar';
import { useMapRoom, type MapRoom } from './useMapRoom';
import type { ShownMap } from './useMatchMap';

/** Ground shades by coats: find where the finish lands on the target. */
export function MapPage() {
  const detail = useJob();
  const [params, setParams] = useSearchParams();
  const room = useMapRoom(detail);
  const { target, error, shown, at } = room;
  if (!target.length && params.has('design')) return <Notice title="Working out where you start …" />;
  if (!target.length) {
    return (
      <Notice
        title="Read the target first."
        text="The map shows which ground and how many coats reach what you measured. One angle is enough to begin with; five tell face and flop apart. Where nothing has to be matched, the look is designed here."
      >
        <Button component={Link} to={`/jobs/${detail.job.id}/target`} variant="contained">
          Read the target
        </Button>
        <Button variant="outlined" onClick={() => setParams({ design: '1' }, { replace: true })}>
          Design the look
        </Button>
      </Notice>
    );
  }
  if (error) return <Notice title="The map could not be computed." text={error} />;
  if (!shown || !at) return <Notice title="Working out the map …" />;
  return <MapBench detail={detail} room={room} shown={shown} at={at} />;
}

interface MapBenchProps {
  readonly detail: PageDetail;
  readonly room: MapRoom;
  readonly shown: ShownMap;
  readonly at: NonNullable<MapRoom['at']>;
}

function MapBench({ detail, room, shown, at }: MapBenchProps) {
  const { job } = detail;
  const { target, design, settled, exposures, shownAt, moveTo } = room;
  const wide = useWide();
  const { library } = useLibrary();
  const navigate = useNavigate();
  const { mutate, isPending, error } = useChangeJob(job.id);
  const onPick = useCallback(
    (pick: Recipe) =>
      mutate(
        { version: job.version, finishId: detail.about, pick },
        { onSuccess: () => void navigate(`/jobs/${job.id}/card`) },
      ),
    [mutate, navigate, job.id, job.version, detail.about],
  );
  const { shown: rows, folded, fold } = useFoldedMap(design.on ? null : shown.map, settled, at.groundId);
  // The picture first: what is said of it may come a moment later, or be left out for the next.
  const said = useDeferredValue(shown);
  const latest = useRef(shown);
  useEffect(() => {
    latest.current = shown;
  }, [shown]);
  const files = useMemo(() => <MapFiles {...{ job, latest, target, shownAt }} />, [job, target, shownAt]);
  const system = findMix(job.mixId, library.systems);
  const fault = error ?? design.error;
  // Without a target nothing matches best.
  const picks = design.on ? null : <PicksBar map={said.map} mix={said.mix} library={library} onShow={moveTo} />;
  return (
    <Bench side={<MapSide shown={said} {...{ detail, settled, at, target, design, onPick }} busy={isPending} />}>
      {design.on ? (
        <DesignAnswer from={design.said} />
      ) : (
        <MapAnswer job={job} shown={said} settled={settled} target={target} />
      )}
      <MapGrid
        map={rows ?? shown.map}
        strength={shown.mix.strength}
        grounds={library.grounds}
        target={target}
        angle={shownAt}
        exposure={exposures[shownAt]!}
        probe={at}
        onProbe={moveTo}
        onStep={room.onStep}
      />
      <Typography variant="body2" sx={{ ml: '130px', color: 'text.secondary' }}>
        {countsControl(job.family)
          ? `${FAMILIES[job.family].controlAfter} ${STYLES[shown.mix.style].name.toLowerCase()} coat, then control coats`
          : 'effect coats'}{' '}
        · figures: dE00 over all angles
        {shown.light === 'D65' ? '' : ', under this light'} · outlined: every angle passes
      </Typography>
      <FoldedRows folded={folded} grounds={library.grounds} fold={fold} />
      {fault ? (
        <Typography role="alert" sx={{ mt: 1, color: 'error.main' }}>
          {fault.message}
        </Typography>
      ) : null}
      {/* On a tablet the picks come first: they are what is looked for, and the controls may be scrolled to. */}
      {wide ? null : picks}
      <MapControls
        start={room.startMix}
        system={system}
        target={target}
        angle={angleKey(target[shownAt]!)}
        light={room.light}
        onMix={room.onMix}
        onAngle={room.showAngle}
        onLight={room.setLight}
      >
        {files}
      </MapControls>
      {wide ? picks : null}
    </Bench>
  );
}
