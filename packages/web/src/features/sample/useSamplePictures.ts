import type { SampleLook } from '@steady-gleam/core/looks';
import { paintSample, ASPECT, type BodyShape, type SampleScene } from './sampleShading';
import type { Job } from '@steady-gleam/contracts';
import { STYLES } from '@steady-gleam/core/finishes';
import { fileName } from '@steady-gleam/core/formats';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { findGround } from '@steady-gleam/core/materials';
import type { useCompareList } from '../../shared/compareList';
import { downloadPng } from '../../shared/download';
import { countCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { exposuresByAngle, cssOf } from '../../shared/screenColour';

/** Grains brighter or darker than this would be noise, not sparkle. */
const MOST_GRAIN = 0.45;

export function sceneOf(
  look: SampleLook,
  shape: BodyShape,
  lamp: readonly [number, number],
  exposure: number,
): SampleScene {
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

/** Pictures of the body, and of what is compared, for a file. */
export function useSamplePictures(
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
