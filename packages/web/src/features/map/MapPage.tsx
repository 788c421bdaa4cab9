import { Button, Typography, useTheme } from '@mui/material';
import type { Illuminant } from '@steady-gleam/core/colour';
import { countsControl, FAMILIES, STYLES, withCount } from '@steady-gleam/core/finishes';
import { fileName, mapToCsv } from '@steady-gleam/core/formats';
import { findMix } from '@steady-gleam/core/materials';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useCompareList } from '../../shared/compareList';
import { download, downloadPng } from '../../shared/download';
import { pickedCount, pickOf, mixOf, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { dimmedNote } from '../../shared/screenColour';
import { useChangeJob, useJob } from '../../shared/useJob';
import type { Mix } from '../../worker/computeTypes';
import { useCompute } from '../../worker/useCompute';
import { mapImage } from './drawMap';
import { LIGHTS, MapControls } from './MapControls';
import { MapGrid } from './MapGrid';
import { PicksBar } from './PicksBar';
import { useWide } from '../../shared/useWide';
import { ProbePanel } from './ProbePanel';
import { cellOf, columnLabel, mapExposures, sayAnswer, sayGreyStep, sayMissing } from './mapModel';
import { useDesign } from './useDesign';
import { FoldedRows, useFoldedMap } from './FoldedRows';
import { useMatchMap } from './useMatchMap';
import { useProbe } from './useProbe';
import { angleKey, sayAngle } from '../../shared/angles';

/** Coats a weak-hiding colour is specified with; common practice (no source). */
const SPECIFIED = [3, 3.5, 4] as const;

/** Ground shades by coats: find where the finish lands on the target. */
export function MapPage() {
  const detail = useJob();
  const { job, target: set } = detail;
  const { tones } = useTheme();
  const wide = useWide();
  const navigate = useNavigate();
  const { library } = useLibrary();
  const change = useChangeJob(job.id);
  const compare = useCompareList(job.id);
  const [params, setParams] = useSearchParams();
  const read = useMemo(() => targetOf(set, detail), [set, detail]);
  const design = useDesign(detail, read.length === 0 && params.has('design'));
  const target = read.length ? read : design.from;
  const { probe, angle, start, showMix, moveTo, showAngle } = useProbe();
  const [startMix] = useState((): Mix => ({ ...mixOf(job), ...start }));
  const mix = useRef(startMix);
  const [light, setLight] = useState<Illuminant>('D65');
  const { shown, settled, error, ask } = useMatchMap(target);

  // Anything but the mix itself changed: the target, the materials, the light.
  useEffect(() => ask({ mix: mix.current, light }), [ask, light]);
  const onMix = useCallback(
    (next: Mix) => {
      mix.current = next;
      ask({ mix: next, light });
    },
    [ask, light],
  );

  // The address follows once the slider rests, so that leaving and coming back loses nothing; a navigation at every step would
  // cost the picture its time.
  useEffect(() => {
    if (!settled || !shown || shown.mix === startMix) return;
    const later = setTimeout(() => showMix(shown.mix), 400);
    return () => clearTimeout(later);
  }, [settled, shown, startMix, showMix]);

  const map = shown?.map;
  const exposures = useMemo(() => (map ? mapExposures(map, target) : []), [map, target]);
  const shownAt = Math.max(
    0,
    target.findIndex((t) => angleKey(t) === (angle ?? '45')),
  );
  const onStep = useCallback(
    (step: 'angle up' | 'angle down' | 'light') => {
      if (step === 'light') {
        setLight((old) => LIGHTS[(LIGHTS.findIndex((l) => l.id === old) + 1) % LIGHTS.length]!.id);
      } else {
        const next = shownAt + (step === 'angle up' ? 1 : -1);
        showAngle(angleKey(target[Math.min(target.length - 1, Math.max(0, next))]!));
      }
    },
    [target, shownAt, showAngle],
  );

  const at = useMemo(() => {
    if (!map || probe) return probe;
    const { groundId } = pickOf(job);
    const coats = pickedCount(job);
    return job.pick ? { groundId, coats: map.counts.includes(coats) ? coats : map.best.coats } : map.best;
  }, [map, probe, job]);

  const { shown: rows, folded, fold } = useFoldedMap(design.on ? null : (map ?? null), settled, at?.groundId ?? null);

  const nothingPasses = !!map && !map.rows.some((r) => r.stop.window);
  const help = useCompute(
    map && settled && nothingPasses ? JSON.stringify(['help', shown.mix, map.best, target]) : null,
    (c) =>
      c.nudge(
        shown!.mix,
        map!.best.groundId,
        map!.best.coats,
        target,
        cellOf(map!, map!.best.groundId, map!.best.coats).labs,
        // Strengths and counts are what the map itself looks through.
        null,
      ),
  );

  if (!target.length && params.has('design')) return <Notice title="Working out where you start …" />;
  if (!target.length) {
    return (
      <Notice
        title="Read the target first."
        text="The map shows which ground and how many coats reach what you measured. One angle is enough to begin with; five tell face and flop apart. Where nothing has to be matched, the look is designed here."
      >
        <Button component={Link} to={`/jobs/${job.id}/target`} variant="contained">
          Read the target
        </Button>
        <Button variant="outlined" onClick={() => setParams({ design: '1' }, { replace: true })}>
          Design the look
        </Button>
      </Notice>
    );
  }
  if (error) return <Notice title="The map could not be computed." text={error} />;
  if (!shown || !map || !at) return <Notice title="Working out the map …" />;

  const said = design.on
    ? {
        answer: 'Nothing has to be matched: choose what you like.',
        why: `Figures say how far each place lies from where you start, ${design.said}. Put aside what you like and look at it on a body; what you choose becomes the target, and its card what your hand makes of it.`,
      }
    : sayAnswer(map, library.grounds);
  const system = findMix(job.mixId, library.systems);
  const step = FAMILIES[job.family].specified ? sayGreyStep(map, target, library.grounds, SPECIFIED) : null;
  const why =
    nothingPasses && !design.on
      ? `${said.why} ${sayMissing(map, target, help.value, library, system)}`
      : step
        ? `${step} ${said.why}`
        : said.why;
  const { strength, style, controlCoats } = shown.mix;
  const candidate = withCount(job.family, { groundId: at.groundId, coats: 0, strength, style, controlCoats }, at.coats);
  const use = async () => {
    // What was chosen becomes the target; then it is picked like any other.
    if (design.on) await design.keep(cellOf(map, at.groundId, at.coats).labs);
    change.mutate(
      { version: job.version, finishId: detail.about, pick: candidate },
      { onSuccess: () => void navigate(`/jobs/${job.id}/card`) },
    );
  };
  const saveMap = () =>
    downloadPng(
      mapImage(
        {
          map,
          angle: shownAt,
          exposure: exposures[shownAt]!,
          target: target[shownAt]!.lab,
          pick: tones.pick,
          probe: null,
        },
        library.grounds,
        columnLabel,
        `${job.piece}: ${system.name} at ${shown.mix.strength.toFixed(2)}x, seen at ${sayAngle(target[shownAt]!)}`,
      ),
      fileName(job.piece, 'match map'),
    );
  const saveCsv = () =>
    download(
      new Blob([mapToCsv(map, target, library.grounds)], { type: 'text/csv' }),
      `${fileName(job.piece, 'match map')}.csv`,
    );

  // Without a target nothing matches best.
  const picks = design.on ? null : <PicksBar map={map} mix={shown.mix} library={library} onShow={moveTo} />;
  return (
    <Bench
      side={
        <ProbePanel
          job={job}
          mix={shown.mix}
          cell={cellOf(map, at.groundId, at.coats)}
          groundId={at.groundId}
          target={target}
          light={shown.light}
          settled={settled}
          note={dimmedNote(target, exposures)}
          busy={change.isPending || design.busy}
          onUse={() => void use().catch(() => undefined)}
          designing={design.on}
          compared={compare.has(candidate)}
          compareFull={compare.list.length >= 4}
          onCompare={() => compare.toggle(candidate)}
        />
      }
    >
      <Answer why={why}>{said.answer}</Answer>
      <MapGrid
        map={rows ?? map}
        strength={shown.mix.strength}
        grounds={library.grounds}
        target={target}
        angle={shownAt}
        exposure={exposures[shownAt]!}
        probe={at}
        onProbe={moveTo}
        onStep={onStep}
      />
      <Typography variant="body2" sx={{ ml: '130px', color: 'text.secondary' }}>
        {countsControl(job.family)
          ? `${FAMILIES[job.family].controlAfter} ${STYLES[shown.mix.style].name.toLowerCase()} coat, then control coats`
          : 'effect coats'}{' '}
        · figures: dE00 over all angles
        {shown.light === 'D65' ? '' : ', under this light'} · outlined: every angle passes
      </Typography>
      <FoldedRows folded={folded} grounds={library.grounds} fold={fold} />
      {change.error || design.error ? (
        <Typography role="alert" sx={{ mt: 1, color: 'error.main' }}>
          {(change.error ?? design.error)!.message}
        </Typography>
      ) : null}
      {/* On a tablet the picks come first: they are what is looked for, and the controls may be scrolled to. */}
      {wide ? null : picks}
      <MapControls
        start={startMix}
        system={system}
        target={target}
        angle={angleKey(target[shownAt]!)}
        light={light}
        onMix={onMix}
        onAngle={showAngle}
        onLight={setLight}
      >
        <Button variant="text" color="inherit" onClick={saveMap} sx={{ px: 1, minWidth: 0 }}>
          Picture
        </Button>
        <Button variant="text" color="inherit" onClick={saveCsv} sx={{ px: 1, minWidth: 0 }}>
          CSV
        </Button>
      </MapControls>
      {wide ? picks : null}
    </Bench>
  );
}
