import { Box, Button, LinearProgress, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';

import type { Lab } from '@steady-gleam/core/colour';
import { layersOf } from '@steady-gleam/core/finishes';
import { describeDifference, scoreMatch, type TargetAngle, type MatchScore } from '@steady-gleam/core/matching';
import { findGround, findMix } from '@steady-gleam/core/materials';
import { useMemo, useState, type Dispatch, type SetStateAction } from 'react';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useCompareList } from '../../shared/compareList';
import { useStacks } from '../../shared/film/useStacks';
import { FlopStrip } from '../../shared/FlopStrip';
import { pickOf, targetOf } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { useJob } from '../../shared/useJob';
import { useCompute } from '../../worker/useCompute';
import { CurvedSample } from './CurvedSample';
import { sampleExposure, SHAPES, type BodyShape } from './sampleShading';
import { canUseGl } from './canUseGl';
import { angleKey, sayAngle, USUAL_ANGLES } from '../../shared/angles';
import { Candidates } from './Candidates';
import { sceneOf, useSamplePictures } from './useSamplePictures';

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
