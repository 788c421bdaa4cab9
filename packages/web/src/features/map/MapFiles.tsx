import { Button, useTheme } from '@mui/material';
import { fileName, mapToCsv } from '@steady-gleam/core/formats';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { findMix } from '@steady-gleam/core/materials';
import type { Job } from '@steady-gleam/contracts';
import type { RefObject } from 'react';
import { sayAngle } from '../../shared/angles';
import { download, downloadPng } from '../../shared/download';
import { useLibrary } from '../../shared/library';
import { mapImage } from './drawMap';
import { columnLabel, mapExposures } from './mapModel';
import type { ShownMap } from './useMatchMap';

interface MapFilesProps {
  readonly job: Job;
  /** What is shown when it is asked for: these are not drawn again with the map. */
  readonly latest: RefObject<ShownMap>;
  readonly target: readonly TargetAngle[];
  readonly shownAt: number;
}

/** The map as it stands, for somebody else. */
export function MapFiles({ job, latest, target, shownAt }: MapFilesProps) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const angle = target[shownAt]!;
  const savePicture = () => {
    const { map, mix } = latest.current;
    const { name } = findMix(job.mixId, library.systems);
    const title = `${job.piece}: ${name} at ${mix.strength.toFixed(2)}x, seen at ${sayAngle(angle)}`;
    const seen = {
      angle: shownAt,
      exposure: mapExposures(map, target)[shownAt]!,
      target: angle.lab,
      pick: tones.pick,
      probe: null,
    };
    downloadPng(mapImage({ map, ...seen }, library.grounds, columnLabel, title), fileName(job.piece, 'match map'));
  };
  const saveCsv = () =>
    download(
      new Blob([mapToCsv(latest.current.map, target, library.grounds)], { type: 'text/csv' }),
      `${fileName(job.piece, 'match map')}.csv`,
    );
  return (
    <>
      <Button variant="text" color="inherit" onClick={savePicture} sx={{ px: 1, minWidth: 0 }}>
        Picture
      </Button>
      <Button variant="text" color="inherit" onClick={saveCsv} sx={{ px: 1, minWidth: 0 }}>
        CSV
      </Button>
    </>
  );
}
