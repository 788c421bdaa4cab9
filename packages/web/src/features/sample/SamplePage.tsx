import { fileName } from '@steady-gleam/core/formats';
import { Box, Button, LinearProgress, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';

import type { Lab } from '@steady-gleam/core/colour';
import { andControl, layersOf, type Recipe, STYLES } from '@steady-gleam/core/finishes';
import { describeDifference, scoreMatch, type TargetAngle, type MatchScore } from '@steady-gleam/core/matching';
import { findGround, findMix } from '@steady-gleam/core/materials';
import { useMemo, useState, type Dispatch, type SetStateAction } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useCompareList } from '../../shared/compareList';
import { downloadPng } from '../../shared/download';
import { useStacks } from '../../shared/film/useStacks';
import { FlopStrip } from '../../shared/FlopStrip';
import { pickOf, countCoats, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { useJob } from '../../shared/useJob';
import type { SampleLook } from '@steady-gleam/core/looks';
import { useCompute } from '../../worker/useCompute';
import { CurvedSample, FlatSample } from './CurvedSample';
import { ASPECT, paintSample, sampleExposure, SHAPES, type BodyShape, type SampleScene } from './sampleShading';
import { canUseGl } from './canUseGl';
import { angleKey, sayAngle, USUAL_ANGLES } from '../../shared/angles';
import type { Job } from '@steady-gleam/contracts';

/** Grains brighter or darker than this would be noise, not sparkle. */
const MOST_GRAIN = 0.45;

function sceneOf(look: SampleLook, shape: BodyShape, lamp: readonly [number, number], exposure: number): SampleScene {
  return {
    prediction: look.prediction,
    target: look.target,
    shape,
    lamp,
    exposure,
    grainPx: look.grain ? 1.8 + look.grain.sizeUm / 60 : 1,
    grain: look.grain ? Math.min(MOST_GRAIN, look.grain.index * 0.5) : 0,
  };
}

/** The finish on a body under a lamp, and what was put aside to compare. */
export function SamplePage() {
  const detail = useJob();
  const { job, target: set } = detail;
  const { library } = useLibrary();
  const compare = useCompareList(job.id);
  const pick = pickOf(job);
  const layers = useStacks(job, pick)[0]!.layers;
  const target = useMemo(() => targetOf(set, detail), [set, detail]);
  const [shape, setShape] = useState<BodyShape>('shell');
  const [lamp, setLamp] = useState<readonly [number, number]>([0.35, 0.55]);
  const [gl] = useState(canUseGl);
  const system = findMix(job.mixId, library.systems);
  const plain = layers.map((l) => ({ ...l, id: '' }));
  const { value: look, error } = useCompute(JSON.stringify(['sample', plain, target]), (c) => c.sample(layers, target));
  const { value: looks } = useCompute(
    compare.list.length ? JSON.stringify(['compare', compare.list, target]) : null,
    (c) =>
      Promise.all(
        compare.list.map((o) => c.sample(layersOf(findGround(o.groundId, library.grounds), system, o), target)),
      ),
  );
  const shownLooks = looks && looks.length === compare.list.length ? looks : null;
  const exposure = useMemo(
    () =>
      sampleExposure([look?.prediction ?? null, look?.target ?? null, ...(shownLooks ?? []).map((l) => l.prediction)]),
    [look, shownLooks],
  );
  const scene = useMemo(() => look && sceneOf(look, shape, lamp, exposure), [look, shape, lamp, exposure]);
  const score = look && target.length ? scoreMatch(target, look.labs) : null;

  const { saved, savedCompare } = useSamplePictures(scene, job, shape, compare, shownLooks, target, lamp, exposure);

  const answer = !target.length
    ? `What you would get: ${system.name.toLowerCase()}.`
    : !score
      ? 'Laying it on the body …'
      : score.toleranceRatio <= 1
        ? 'Left half and right half should look like one.'
        : `The halves differ: dE00 ${score.rmsDe.toFixed(1)} over all angles.`;
  const why = !target.length
    ? 'Nothing has been read yet, so there is no target half. Drag the lamp over the body to see face and flop.'
    : `Left the target, right what the model predicts for the layers kept. The target was read at ${target.length === 1 ? 'one angle' : `${target.length} angles`}; between them it is a guess. Drag the lamp over the body.`;

  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Face to flop</Typography>
          {look ? (
            <FlopStrip
              angles={target.length ? target : USUAL_ANGLES}
              target={target.length ? target.map((t) => t.lab) : look.labs}
              {...(target.length ? { sample: look.labs } : {})}
              label="Target over prediction, from face to flop"
              fileTitle={`${job.piece} flop`}
            />
          ) : null}
          {score ? <AngleWords target={target} score={score} labs={look!.labs} /> : null}
          <Typography variant="body2" sx={{ color: 'text.secondary', mt: 'auto' }}>
            A screen is not a proof. Off the plane of lamp and eye the nearest angle in it stands in.
            {look?.grain ? ` Grains are drawn larger than life; these are ${look.grain.sizeUm} µm.` : ''}
            {gl ? '' : ' Drawn without WebGL.'}
          </Typography>
          <Button variant="outlined" onClick={saved} disabled={!scene}>
            Save the picture
          </Button>
          {shownLooks ? (
            <Button variant="outlined" onClick={savedCompare}>
              Save the comparison
            </Button>
          ) : null}
        </>
      }
    >
      <Answer why={why}>{answer}</Answer>
      {error ? <Typography role="alert">{error}</Typography> : null}
      {scene ? (
        <CurvedSample
          scene={scene}
          gl={gl}
          label={`${target.length ? 'Target on the left half, prediction on the right' : 'Prediction'}, on a ${SHAPES.find((s) => s.id === shape)!.name.toLowerCase()} under a lamp`}
          onLamp={setLamp}
        />
      ) : (
        <Box sx={{ minHeight: 300 }}>
          <Typography variant="body2" sx={{ mb: 1 }}>
            Working out the look at 84 angles …
          </Typography>
          <LinearProgress color="inherit" aria-label="Working out the look" />
        </Box>
      )}
      <BodyChoice shape={shape} setShape={setShape} />
      <Typography variant="h2" sx={{ mt: 3, mb: 1 }}>
        {compare.list.length ? 'Put aside to compare' : 'Nothing is put aside to compare yet'}
      </Typography>
      {compare.list.length ? (
        <Candidates
          compare={compare}
          shownLooks={shownLooks}
          shape={shape}
          lamp={lamp}
          exposure={exposure}
          target={target}
        />
      ) : (
        <Typography>
          Put up to four places aside on the{' '}
          <Link to={`/jobs/${job.id}/map`} style={{ color: 'inherit' }}>
            match map
          </Link>
          ; they stand here side by side.
        </Typography>
      )}
    </Bench>
  );
}

interface CandidateProps {
  readonly pick: Recipe;
  readonly groundName: string;
  readonly look: SampleLook | null;
  readonly scene: SampleScene | null;
  readonly target: readonly Lab[];
  readonly rmsDe: number | null;
  readonly onRemove: () => void;
}

/** One candidate at face, at flop and on the body; its target above it, touching. */
function Candidate({ pick, groundName, look, scene, target, rmsDe, onRemove }: CandidateProps) {
  const ends = look ? [0, look.labs.length - 1] : [];
  const exposures = look ? exposuresByAngle(target.length ? [target, look.labs] : [look.labs]) : [];
  return (
    <Box role="listitem" sx={{ pt: 1, minWidth: 0 }}>
      <Typography variant="h3" component="div" noWrap>
        {groundName}, {countCoats(pick.coats)}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        {pick.strength.toFixed(2)}×, {STYLES[pick.style].name.toLowerCase()}
        {andControl(pick.controlCoats)}
        {rmsDe === null ? '' : ` · dE00 ${rmsDe.toFixed(1)}`}
      </Typography>
      <Box sx={{ display: 'flex', height: 84 }} role="img" aria-label="Face and flop, target above">
        {ends.map((g) => (
          <Box key={g} sx={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
            {target.length ? <div style={{ flex: 1, background: cssOf(target[g]!, exposures[g]) }} /> : null}
            <div style={{ flex: 1, background: cssOf(look!.labs[g]!, exposures[g]) }} />
          </Box>
        ))}
      </Box>
      {scene ? <FlatSample scene={scene} width={240} /> : <Box sx={{ height: 120 }} />}
      <Button variant="text" color="inherit" onClick={onRemove} sx={{ px: 0.5 }}>
        Leave it out
      </Button>
    </Box>
  );
}

interface CandidatesProps {
  readonly compare: ReturnType<typeof useCompareList>;
  readonly shownLooks: readonly SampleLook[] | null;
  readonly shape: BodyShape;
  readonly lamp: readonly [number, number];
  readonly exposure: number;
  readonly target: TargetAngle[];
}

/** What was put aside, side by side. */
function Candidates({ compare, shownLooks, shape, lamp, exposure, target }: CandidatesProps) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  return (
    <Box
      role="list"
      aria-label="Candidates"
      sx={{
        display: 'grid',
        gridTemplateColumns: `repeat(${compare.list.length}, minmax(0, 260px))`,
        borderTop: `1px solid ${tones.hairline}`,
      }}
    >
      {compare.list.map((o, i) => (
        <Candidate
          key={JSON.stringify(o)}
          pick={o}
          groundName={findGround(o.groundId, library.grounds).name}
          look={shownLooks?.[i] ?? null}
          scene={shownLooks?.[i] ? sceneOf(shownLooks[i], shape, lamp, exposure) : null}
          target={target.map((t) => t.lab)}
          rmsDe={shownLooks?.[i] && target.length ? scoreMatch(target, shownLooks[i].labs).rmsDe : null}
          onRemove={() => compare.toggle(o)}
        />
      ))}
    </Box>
  );
}

/** Pictures of the body, and of what is compared, for a file. */
function useSamplePictures(
  scene: SampleScene | null,
  job: Job,
  shape: BodyShape,
  compare: ReturnType<typeof useCompareList>,
  shownLooks: SampleLook[] | null,
  target: TargetAngle[],
  lamp: readonly [number, number],
  exposure: number,
) {
  const { library } = useLibrary();
  const saved = () => {
    const canvas = document.createElement('canvas');
    canvas.width = 1280;
    canvas.height = Math.round(1280 / ASPECT);
    const picture = document.createElement('canvas');
    picture.width = canvas.width;
    picture.height = canvas.height;
    paintSample(picture.getContext('2d')!, scene!, canvas.width, canvas.height);
    const ink = canvas.getContext('2d')!;
    ink.fillStyle = '#ababab';
    ink.fillRect(0, 0, canvas.width, canvas.height);
    ink.drawImage(picture, 0, 0);
    downloadPng(canvas, fileName(job.piece, 'on a', shape));
  };

  const savedCompare = () => {
    const [wide, bodyHigh] = [480, Math.round(480 / ASPECT)];
    const canvas = document.createElement('canvas');
    canvas.width = wide * compare.list.length;
    canvas.height = 130 + 200 + bodyHigh;
    const ink = canvas.getContext('2d')!;
    ink.fillStyle = '#ababab';
    ink.fillRect(0, 0, canvas.width, canvas.height);
    compare.list.forEach((o, i) => {
      const one = shownLooks![i]!;
      ink.fillStyle = '#121212';
      ink.font = '600 28px "Archivo Variable", sans-serif';
      ink.fillText(`${findGround(o.groundId, library.grounds).name}, ${countCoats(o.coats)}`, i * wide + 12, 50);
      ink.font = '22px "Archivo Variable", sans-serif';
      ink.fillText(`${o.strength.toFixed(2)}x, ${STYLES[o.style].name.toLowerCase()}`, i * wide + 12, 90);
      const ends = [0, one.labs.length - 1];
      const rows = target.length ? [target.map((t) => t.lab), one.labs] : [one.labs];
      const exposures = exposuresByAngle(rows);
      ends.forEach((g, k) =>
        rows.forEach((labs, r) => {
          ink.fillStyle = cssOf(labs[g]!, exposures[g]);
          ink.fillRect(i * wide + (k * wide) / 2, 130 + (r * 200) / rows.length, wide / 2, 200 / rows.length);
        }),
      );
      const body = document.createElement('canvas');
      body.width = wide;
      body.height = bodyHigh;
      paintSample(body.getContext('2d')!, sceneOf(one, shape, lamp, exposure), wide, bodyHigh);
      ink.drawImage(body, i * wide, 330);
    });
    downloadPng(canvas, fileName(job.piece, 'compared'));
  };
  return { saved, savedCompare };
}

interface AngleWordsProps {
  readonly target: TargetAngle[];
  readonly score: MatchScore;
  readonly labs: readonly Lab[];
}

/** How far the halves differ, angle by angle. */
function AngleWords({ target, score, labs }: AngleWordsProps) {
  return (
    <Box
      component="dl"
      sx={{ m: 0, fontSize: 15, display: 'grid', gridTemplateColumns: 'auto auto 1fr', columnGap: 1.5 }}
    >
      {target.map((t, g) => (
        <Box key={angleKey(t)} sx={{ display: 'contents' }}>
          <dt>{sayAngle(t)}</dt>
          <Box component="dd" sx={{ m: 0, fontFamily: FIGURES }}>
            {score.differences[g]!.toFixed(1)}
          </Box>
          <Box component="dd" sx={{ m: 0 }}>
            {describeDifference(t.lab, labs[g]!).text}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

interface BodyChoiceProps {
  readonly shape: BodyShape;
  readonly setShape: Dispatch<SetStateAction<BodyShape>>;
}

/** The body it is laid on. */
function BodyChoice({ shape, setShape }: BodyChoiceProps) {
  return (
    <ToggleButtonGroup
      exclusive
      value={shape}
      aria-label="Body"
      sx={{ mt: 1 }}
      onChange={(_, v: BodyShape | null) => v && setShape(v)}
    >
      {SHAPES.map((s) => (
        <ToggleButton key={s.id} value={s.id}>
          {s.name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
