import type { CSSProperties } from 'react';
import { Box, Button, Typography, useTheme } from '@mui/material';
import { photosApi, pathOf, type JobDetail } from '@steady-gleam/contracts';
import { FAMILIES } from '@steady-gleam/core/finishes';
import type { Look, SeenSpot } from '@steady-gleam/core/jobs';
import { PEEL_WORDS, type EyeView, type Verdict } from '@steady-gleam/core/letdown';
import type { Moment } from '@steady-gleam/core/recovery';
import { useState } from 'react';
import { sendPhoto } from '../../shared/log/parcels';
import { shopIso } from '../../shared/clock';
import { Field } from '../../ui/Field';
import { FileButton } from '../../shared/FileButton';
import type { JobLog } from '../../shared/log/useLog';
import { newId } from '../../shared/newId';
import { shrinkPhoto } from '../../shared/shrinkPhoto';
import { ReadThere } from '../spray/ReadThere';
import type { Live } from '../spray/useLive';
import { sayVerdict, VIEW_NAMES, type Place } from './inspectModel';

const BUTTON = { minHeight: 64, fontSize: 19, lineHeight: 1.1, px: 1 } as const;
const WAYS: readonly Verdict[] = ['much lighter', 'lighter', 'match', 'darker', 'much darker'];

/** What is seen at one place from one place to stand: in words, in readings, or in two photos. */
export function LookPad({
  detail,
  live,
  log,
  place,
  view,
  moment,
  places,
  onRead,
}: {
  detail: JobDetail;
  live: Live;
  log: JobLog;
  place: Place & { readonly looks: readonly SeenSpot[] };
  view: EyeView;
  moment: Moment;
  places: readonly Place[];
  onRead: () => void;
}) {
  const { tones } = useTheme();
  const { job } = detail;
  const [against, setAgainst] = useState('');
  const [reads, setReads] = useState(false);
  // Under clear its peel may be off too.
  const beside = [...FAMILIES[job.family].byEye.beside, ...(moment === 'finished' ? PEEL_WORDS : [])];
  const here = place.looks.find((l) => l.view === view && (l.against ?? '') === against && l.patch === null) ?? null;
  const coats = live.at(place.name);
  const say = (look: Partial<Look>) =>
    log.tell({
      kind: 'look',
      cells: place.areaIds.map((areaId) => ({ coatId: live.layerIds[0] ?? '', areaId })),
      layerId: live.layerIds[0] ?? null,
      coats,
      look: {
        ...{ spot: place.name, view, verdict: here?.verdict ?? null, hue: here?.hue ?? null, patch: null },
        ...{ against: against || null, photos: here?.photos.length ? here.photos : null },
        ...look,
      },
    });
  const picked = (on: boolean) => (on ? { outline: `4px solid ${tones.pick}`, outlineOffset: -4 } : {});
  return (
    <Box
      component="section"
      aria-label={`${place.name}, ${VIEW_NAMES[view]}`}
      sx={{ mt: 1.5, borderTop: `3px solid ${tones.ink}`, pt: 1 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'flex-end', gap: 2, mb: 1, flexWrap: 'wrap' }}>
        <Typography variant="h2" sx={{ flex: 1, minWidth: 220 }}>
          {place.name}, {VIEW_NAMES[view]}: against {against || 'what has to be matched'} it is
        </Typography>
        {places.length > 1 ? (
          <Box sx={{ width: 230 }}>
            <Field label="Held against" select value={against} onChange={(e) => setAgainst(e.target.value)}>
              <option value="">what has to be matched</option>
              {places
                .filter((p) => p.name !== place.name)
                .map((p) => (
                  <option key={p.name} value={p.name}>
                    {p.name}
                  </option>
                ))}
            </Field>
          </Box>
        ) : null}
      </Box>
      <VerdictPad job={job} here={here} picked={picked} say={say} />
      <Box role="group" aria-label="Beside it" sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {beside.map((word) => (
          <Button
            key={word}
            variant="outlined"
            disabled={!here?.verdict}
            aria-pressed={here?.hue === word}
            sx={{ minHeight: 52, ...picked(here?.hue === word) }}
            onClick={() => say({ hue: here?.hue === word ? null : word })}
          >
            {word}
          </Button>
        ))}
        <Button
          variant="outlined"
          disabled={!here?.verdict}
          sx={{ minHeight: 52 }}
          onClick={() => say({ verdict: null, hue: null, photos: null })}
        >
          Take it back
        </Button>
        {live.count.target.length ? (
          <Button variant="outlined" aria-expanded={reads} sx={{ minHeight: 52 }} onClick={() => setReads(!reads)}>
            Read it
          </Button>
        ) : null}
        <PhotoPair jobId={job.id} look={here} onPair={(photos) => say({ photos })} />
      </Box>
      <Pair photos={here?.photos ?? []} name={place.name} against={against || 'what has to be matched'} />
      {reads ? (
        <ReadThere {...{ detail, live, place, coats }} state="cleared" onKept={() => (setReads(false), onRead())} />
      ) : null}
    </Box>
  );
}

/** Two photos of one moment, taken one after the other: the place, then what it is held against. */
function PhotoPair({
  jobId,
  look,
  onPair,
}: {
  jobId: string;
  look: SeenSpot | null;
  onPair: (photos: string[]) => void;
}) {
  const [first, setFirst] = useState<string | null>(null);
  const [fault, setFault] = useState('');
  const take = async (file: File) => {
    setFault('');
    try {
      const id = newId();
      const bytes = await shrinkPhoto(file);
      await sendPhoto(jobId, jobId, { id, kind: 'job', coats: null, takenAt: shopIso() }, bytes);
      if (first === null) setFirst(id);
      else {
        onPair([first, id]);
        setFirst(null);
      }
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <FileButton
        variant="outlined"
        sx={{ minHeight: 52 }}
        label={first === null ? 'Photo of the place' : 'Photo of what it is held against'}
        accept="image/*"
        capture="environment"
        onFile={(file) => void take(file)}
      >
        {first === null ? (look?.photos.length ? 'Two photos again' : 'Two photos') : 'Now the other one'}
      </FileButton>
      {fault ? (
        <Typography role="alert" sx={{ flexBasis: '100%' }}>
          {fault} The words can be said without a photo.
        </Typography>
      ) : null}
    </>
  );
}

/** Photos side by side, touching. */
function Pair({ photos, name, against }: { photos: readonly string[]; name: string; against: string }) {
  if (photos.length < 2) return null;
  return (
    <Box sx={{ display: 'flex', mt: 1, maxWidth: 520 }}>
      {photos.map((id, i) => (
        <Box
          component="img"
          key={id}
          src={pathOf(photosApi.read.path, { id })}
          alt={i ? `What it is held against: ${against}` : `The place: ${name}`}
          sx={{ width: '50%', height: 150, objectFit: 'cover' }}
        />
      ))}
    </Box>
  );
}

interface VerdictPadProps {
  readonly job: JobDetail['job'];
  readonly here: SeenSpot | null;
  readonly picked: (on: boolean) => CSSProperties;
  readonly say: (look: Partial<Look>) => readonly string[];
}

/** How it looks, in five words. */
function VerdictPad({ job, here, picked, say }: VerdictPadProps) {
  return (
    <Box role="group" aria-label="What is seen" sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, 1fr)', gap: 1 }}>
      {WAYS.map((v) => {
        const { word } = sayVerdict(job.family, v);
        const label = v === 'match' ? 'It matches' : v.startsWith('much') ? `clearly ${word}` : `a little ${word}`;
        return (
          <Button
            key={v}
            variant="outlined"
            aria-pressed={here?.verdict === v}
            sx={{ ...BUTTON, ...picked(here?.verdict === v) }}
            onClick={() => say({ verdict: v })}
          >
            {label}
          </Button>
        );
      })}
    </Box>
  );
}
