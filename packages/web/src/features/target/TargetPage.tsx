import { Box, Typography } from '@mui/material';
import type { ReadingSet, Job } from '@steady-gleam/contracts';

import { objectsOf } from '@steady-gleam/core/jobs';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { noiseOfSpots } from '@steady-gleam/core/letdown';
import { averageReadings, spotLabsOf, type AveragedAngle } from '@steady-gleam/core/formats';
import { lazy, Suspense, useState } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { dimmedNote, exposuresByAngle } from '../../shared/screenColour';
import { targetOf } from '../../shared/jobModel';
import { useAddReadings, useJob } from '../../shared/useJob';
import { ChipsPanel } from './ChipsPanel';
import { Limits } from './Limits';
import { outlyingSpots } from './chipsModel';
import { ColourChip } from './ColourChip';
import { PhotoReader } from '../../shared/PhotoReader';
import { TargetHistory } from './TargetHistory';
import { TexturePick } from './TexturePick';
import { WantedCover } from './WantedCover';
import { TravelPicture } from '../../shared/TravelPicture';
import { TakeOut, useTakenOut } from '../../shared/TakeOut';
import { sayAngle, TRAVEL_ANGLES, USUAL_ANGLES } from '../../shared/angles';
import { SPREAD_WORTH_A_LOOK, TargetTable } from './TargetTable';
import { OtherWays, TargetAgain } from './OtherWays';
import { TargetSide } from './TargetSide';

/** The page's sentence; below another that leads it is a smaller one. */
function Heading({ leads, why, children }: { leads: boolean; why: string; children: string }) {
  if (leads) return <Answer why={why}>{children}</Answer>;
  return (
    <Box sx={{ mt: 3, mb: 1.5 }}>
      <Typography variant="h2">{children}</Typography>
      <Typography sx={{ color: 'text.secondary' }}>{why}</Typography>
    </Box>
  );
}

const AngleChart = lazy(() => import('./AngleChart').then((m) => ({ default: m.AngleChart })));

/** What to match: readings per angle. */
export function TargetPage() {
  const detail = useJob();
  const { job, target: set, objectId } = detail;
  // Of several objects one may have been read by itself.
  const object = objectsOf(job).find((o) => o.id === objectId) ?? null;
  const borrowed = object !== null && set !== null && set.objectId === null;
  const row = FAMILIES[job.family];
  const add = useAddReadings(job);
  const [reading, setReading] = useState<false | 'again' | 'correct'>(false);
  const { took, note: takenOut } = useTakenOut();
  const keep = async (s: ReadingSet) => {
    await add.mutateAsync({ ...s, objectId });
    setBy(null);
    setReading(false);
  };
  /** Without an instrument. */
  const [by, setBy] = useState<'photo' | 'chip' | null>(null);
  const averaged = set ? averageReadings(set.readings) : [];
  const target = targetOf(set, detail);
  const scatter = noiseOfSpots([...(set ? [set] : []), ...detail.rungs].map((s) => spotLabsOf(s.readings)));
  const spots = new Set(set?.readings.map((r) => r.spot)).size;
  const widest = averaged.length ? averaged.reduce((a, b) => (b.spread > a.spread ? b : a)) : null;
  const showForm = (!set || reading) && by === null;
  const outlying = set ? outlyingSpots(set) : [];
  const exposures = exposuresByAngle([target.map((t) => t.lab)]);
  const note = dimmedNote(target, exposures);

  const { why, headline } = sayTarget(set, job, averaged, spots, outlying, widest);

  return (
    <Bench
      side={<TargetSide job={job} row={row} isRead={set !== null} averaged={averaged} target={target} note={note} />}
    >
      {row.wanted === 'cover' ? <WantedCover detail={detail} /> : null}
      <Heading
        leads={row.wanted !== 'cover'}
        why={
          borrowed
            ? `The job’s target stands in for ${object.name}. Read ${object.name} by itself where it looks otherwise: it then gets its own count.`
            : why
        }
      >
        {borrowed
          ? `${object.name} has no target of its own yet.`
          : object
            ? `${object.name}: ${headline.charAt(0).toLowerCase()}${headline.slice(1)}`
            : headline}
      </Heading>
      {takenOut}
      {by === 'photo' ? (
        <PhotoReader onCancel={() => setBy(null)} onSave={keep} />
      ) : by === 'chip' ? (
        <ColourChip onCancel={() => setBy(null)} onSave={keep} />
      ) : showForm ? (
        <>
          <ReadingsForm
            key={reading || 'first'}
            initial={reading === 'correct' ? set : null}
            kind="target"
            rungCoats={null}
            objectId={objectId}
            angles={row.wanted === 'travel' ? [...USUAL_ANGLES, ...TRAVEL_ANGLES] : USUAL_ANGLES}
            saveLabel="Keep this target"
            simulated={job.tryOut ? { jobId: job.id } : null}
            onSave={async (s) => {
              await add.mutateAsync(s);
              // Unless another form was asked for meanwhile.
              setReading((now) => (now === reading ? false : now));
            }}
            known={set ? [set] : []}
            {...(set ? { onCancel: () => setReading(false) } : {})}
          />
          {job.tryOut ? null : <OtherWays row={row} setBy={setBy} job={job} />}
        </>
      ) : set ? (
        <>
          <TargetTable averaged={averaged} target={target} />
          {row.wanted === 'travel' && averaged.length > 1 ? (
            <Box sx={{ mt: 2 }}>
              <TravelPicture target={averaged} />
            </Box>
          ) : averaged.length > 1 ? (
            <Suspense fallback={null}>
              <AngleChart averaged={averaged} readings={set.readings} />
            </Suspense>
          ) : null}
          <TargetAgain setReading={setReading} set={set} job={job} />
          <TakeOut set={set} what="Take these readings out" onTaken={() => took(set, 'The target')} />
          <Limits detail={detail} target={target} spots={spots} scatter={scatter} />
          <TexturePick job={job} />
          <TargetHistory detail={detail} target={target} />
          <ChipsPanel detail={detail} target={target} />
        </>
      ) : null}
    </Bench>
  );
}

/** What is said of the target. */
function sayTarget(
  set: ReadingSet | null,
  job: Job,
  averaged: AveragedAngle[],
  spots: number,
  outlying: { spot: string; off: number }[],
  widest: AveragedAngle | null,
) {
  const headline = !set
    ? job.tryOut
      ? 'Nothing read yet. Hold the instrument on the panel, and read it.'
      : 'Nothing read yet. Type what the instrument says, angle by angle.'
    : `Read at ${averaged.length === 1 ? 'one angle' : `${averaged.length} angles`}, ${spots === 1 ? 'one spot' : `${spots} spots`}.`;
  const why = !set
    ? job.tryOut
      ? 'It reads three spots at five angles. It wants its white tile at first, as a real one does.'
      : 'Clean the finish first. Three spots a hand apart tell more than one; a file takes them all.'
    : set.source === 'designed'
      ? 'Designed on the map: what the model says of the place that was chosen. Its card shows what your hand makes of it.'
      : set.doubt
        ? `${set.source === 'chip' ? 'Picked on a screen' : 'From a photo'}: good to ${set.doubt} units at best. Look at the card itself before you trust any count.`
        : outlying.length
          ? `Spot ${outlying.map((o) => `${o.spot} (${o.off.toFixed(1)} dE00 off)`).join(', ')} stands apart from the others. Read it again, or leave it out.`
          : spots === 1
            ? 'One spot says nothing about how even the finish is.'
            : widest!.spread > SPREAD_WORTH_A_LOOK
              ? `The spots differ by up to ${widest!.spread.toFixed(1)} dE00 at ${sayAngle(widest!)}. Look for polish, fading or a repair before you trust the average.`
              : `The spots agree within ${widest!.spread.toFixed(1)} dE00; their average is the target.`;
  return { why, headline };
}
