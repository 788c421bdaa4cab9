import { Box, Button, ToggleButton, Typography } from '@mui/material';
import { START_MIXING, type Mixing } from '@steady-gleam/contracts';
import { STYLES, withCount } from '@steady-gleam/core/finishes';
import { findGround, findMix, findPigment } from '@steady-gleam/core/materials';
import {
  clearToBury,
  coatsForCover,
  coverAfter,
  flakeSizesOf,
  groundShows,
  wantedCover,
} from '@steady-gleam/core/mixing';
import { de2000 } from '@steady-gleam/core/colour';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { Answer } from '../../shared/Answer';
import { countCoats, pickedCount, pickOf, sayCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { NOMINAL_PX_PER_MM, ScreenScale, useScreenScale } from '../../shared/screenScale';
import { useGroundColours } from '../../shared/useGroundColours';
import { useChangeJob, type PageDetail } from '../../shared/useJob';
import { useCompute } from '../../worker/useCompute';
import { FlakePicture } from '../mix/FlakePicture';
import { Slide } from '../../ui/Slide';

/** Covers that are asked for by name; common practice (no source). */
const NAMED = [
  { cover: 0.5, name: 'Half' },
  { cover: 0.75, name: 'Three quarters' },
  { cover: 0.97, name: 'Full' },
] as const;
/** What a flake layer is buried with before anything was said of it, um; ours. */
const BURY = { sandUm: 30, keepUm: 40 } as const;

/** What a metal flake has to be: how much of the ground its flakes cover, at their own size over it. */
export function WantedCover({ detail }: { detail: PageDetail }) {
  const { job } = detail;
  const { library } = useLibrary();
  const change = useChangeJob(job.id);
  const pick = pickOf(job);
  const mix = findMix(job.mixId, library.systems);
  const ground = findGround(pick.groundId, library.grounds);
  const sizes = flakeSizesOf(mix, library);
  const most = mix.flakes.length ? mix.flakes.reduce((a, b) => (b.cover > a.cover ? b : a)) : null;
  const { value: look } = useCompute(most && `flake/${most.pigmentId}`, (c) => c.pigmentLook(most!.pigmentId, 0.97));
  const groundLab = useGroundColours()(ground.id);
  const advice = wantedCover(ground, look ? de2000(groundLab, look.black[2]!) : 0);
  const kept = job.mixing?.flake?.cover ?? null;
  const film = STYLES[pick.style].film * pick.strength;
  // What is wanted; else what is picked lays; else what the ground asks for.
  const picked = job.pick ? coverAfter(mix, film, pickedCount(job)) : advice.cover;
  const [cover, setCover] = useState(kept ?? Math.min(0.99, Math.max(0.05, picked)));
  const scale = useScreenScale();
  const [measuring, setMeasuring] = useState(false);
  const [zoom, setZoom] = useState<1 | 5>(1);
  if (!most)
    return (
      <Typography>
        This mix holds no flake. Give it flakes among the materials, or choose another mix for the job.
      </Typography>
    );
  const coats = coatsForCover(mix, film, cover)!;
  const lay = Math.min(12, Math.max(0.5, Math.round(coats * 2) / 2));
  const said = `${Math.round(cover * 100)} %`;
  const asWanted = kept !== null && Math.abs(kept - cover) < 0.005 && pickedCount(job) === lay && job.pick !== null;
  const use = () => {
    const pigment = findPigment(most.pigmentId, library.pigments);
    const clear = 28;
    const bury = clearToBury({ mix: sizes, cover, tilt: pigment.tilt, filmUm: clear, ...BURY });
    const flake: NonNullable<Mixing['flake']> = {
      pigmentId: pigment.id,
      parts: sizes.map(({ sizeUm, parts }) => ({ sizeUm, parts: Number(parts.toFixed(2)) })),
      ...{ cover, filmUm: clear, ...BURY, buryCoats: bury.coats },
    };
    change.mutate({
      version: job.version,
      finishId: detail.about,
      mixing: { ...(job.mixing ?? START_MIXING), flake },
      pick: withCount(job.family, pick, lay),
    });
  };
  const panel = (c: number, width: number, height: number, label: string) =>
    look ? (
      <FlakePicture
        mix={sizes}
        cover={c}
        zoom={zoom}
        pxPerMm={scale ?? NOMINAL_PX_PER_MM}
        ground={groundLab}
        flake={[...look.black].reverse()}
        width={width}
        height={height}
        seed={11}
        label={label}
      />
    ) : null;
  return (
    <Box component="section" aria-label="Wanted cover">
      <Answer
        why={`${mix.name} covers ${Math.round(coverAfter(mix, film, 1) * 100)} % with a coat, laid ${STYLES[pick.style].name.toLowerCase()}: ${sayCoats(Number(coats.toFixed(1)))} coats give ${said}. ${
          advice.full
            ? 'Over this ground the cover should be full, or it shows between the flakes.'
            : 'Over silver, or a ground of the flake’s own colour, a partial cover is enough.'
        }`}
      >
        {`${said} covered over ${ground.name.toLowerCase()}: ${countCoats(lay)}.`}
      </Answer>
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <Box>
          {panel(cover, 100, 60, `Wanted, ${said} covered`)}
          <Typography variant="body2">
            wanted, {zoom > 1 ? 'five times as large' : scale === null ? 'about as large as life' : 'as large as life'}
          </Typography>
        </Box>
        {[1, 2, 3].map((n) => (
          <Box key={n}>
            {panel(coverAfter(mix, film, n), 24, 36, `After ${n} coats`)}
            <Typography variant="body2">
              {n}: {Math.round(coverAfter(mix, film, n) * 100)} %
            </Typography>
          </Box>
        ))}
      </Box>
      <CoverChoice cover={cover} setCover={setCover} zoom={zoom} setZoom={setZoom} />
      {groundShows(advice, cover) ? (
        <Typography role="alert">
          {Math.round(100 - cover * 100)} % of {ground.name.toLowerCase()} would show between the flakes.
        </Typography>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mt: 1 }}>
        <Button variant="contained" onClick={use} disabled={change.isPending || asWanted}>
          {asWanted ? 'It is what the job has' : `Want ${said}: plan ${countCoats(lay)}`}
        </Button>
        {measuring ? null : (
          <Button variant="text" color="inherit" onClick={() => setMeasuring(true)}>
            {scale === null ? 'Measure this screen with a card' : 'Measure this screen again'}
          </Button>
        )}
      </Box>
      {measuring ? <ScreenScale onDone={() => setMeasuring(false)} /> : null}
      {change.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {change.error.message}
        </Typography>
      ) : null}
    </Box>
  );
}

interface CoverChoiceProps {
  readonly cover: number;
  readonly setCover: Dispatch<SetStateAction<number>>;
  readonly zoom: 1 | 5;
  readonly setZoom: Dispatch<SetStateAction<1 | 5>>;
}

/** The cover that is wanted, by a slider or by a name. */
function CoverChoice({ cover, setCover, zoom, setZoom }: CoverChoiceProps) {
  return (
    <Box sx={{ display: 'flex', gap: 3, alignItems: 'center', maxWidth: 720, mt: 1 }}>
      <Slide
        aria-label="Wanted cover, %"
        min={5}
        max={99}
        value={Math.round(cover * 100)}
        onChange={(v) => setCover(v / 100)}
      />
      {NAMED.map((n) => (
        <ToggleButton
          key={n.name}
          value={n.name}
          selected={Math.abs(cover - n.cover) < 0.005}
          onChange={() => setCover(n.cover)}
          sx={{ flex: 'none' }}
        >
          {n.name}
        </ToggleButton>
      ))}
      <ToggleButton value="zoom" selected={zoom > 1} onChange={() => setZoom(zoom === 1 ? 5 : 1)} sx={{ flex: 'none' }}>
        Magnify
      </ToggleButton>
    </Box>
  );
}
