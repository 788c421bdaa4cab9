import { Box, Button, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import type { Job, JobDetail, Photo, VerdictEvent } from '@steady-gleam/contracts';
import { FAMILIES, type FinishFamily } from '@steady-gleam/core/finishes';
import { VERDICTS, viewsOf, type EyeView, type Verdict } from '@steady-gleam/core/letdown';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useState } from 'react';
import { FileButton } from '../../shared/FileButton';
import { countCoats } from '../../shared/jobModel';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { useAddPhoto, useAddReadings, useAddVerdict, useRemovePhoto } from '../../shared/useJob';
import { shrinkPhoto } from '../../shared/shrinkPhoto';
import { newId } from '../../shared/newId';
import { shopIso } from '../../shared/clock';
import { TakeOut, useTakenOut } from '../../shared/TakeOut';
import { USUAL_ANGLES } from '../../shared/angles';

/** A verdict in the family's words: as it is called, and as it stands on a narrow button. */
export function verdictWord(family: FinishFamily, verdict: Verdict): { readonly said: string; readonly short: string } {
  const { less, more } = FAMILIES[family].byEye;
  const stem = (word: string) => word.replace(/er$/, '');
  switch (verdict) {
    case 'much lighter':
      return { said: `much ${less}`, short: `≪ ${stem(less)}` };
    case 'lighter':
      return { said: less, short: less };
    case 'match':
      return { said: 'match', short: 'match' };
    case 'darker':
      return { said: more, short: more };
    case 'much darker':
      return { said: `much ${more}`, short: `${stem(more)} ≫` };
  }
}

/** Buttons for how something looks beside the target, from each place the painter may stand. */
export function VerdictRows({
  family,
  verdicts,
  onSay,
}: {
  family: FinishFamily;
  verdicts: readonly { view: EyeView; verdict: Verdict | null; hue?: string | null }[];
  onSay: (view: EyeView, verdict: Verdict | null, hue: string | null) => void;
}) {
  const { beside } = FAMILIES[family].byEye;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      {viewsOf(family).map((view) => {
        const own = verdicts.find((v) => v.view === view);
        const said = own?.verdict ?? null;
        const hue = own?.hue ?? null;
        return (
          <Box key={view}>
            <Typography variant="h3" component="div">
              {view}
            </Typography>
            <ToggleButtonGroup
              exclusive
              fullWidth
              value={said}
              aria-label={`Looks, ${view}`}
              onChange={(_, v: Verdict | null) => onSay(view, v, v === null ? null : hue)}
            >
              {VERDICTS.map((v) => (
                <ToggleButton
                  key={v}
                  value={v}
                  aria-label={verdictWord(family, v).said}
                  sx={{ px: 0.25, fontSize: 13.5, minWidth: 0 }}
                >
                  {verdictWord(family, v).short}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
            {said ? (
              <ToggleButtonGroup
                exclusive
                fullWidth
                value={hue}
                aria-label={`Beside it, ${view}`}
                onChange={(_, v: string | null) => onSay(view, said, v)}
              >
                {beside.map((v) => (
                  <ToggleButton key={v} value={v} sx={{ px: 0.25, fontSize: 13.5, minWidth: 0 }}>
                    {v}
                  </ToggleButton>
                ))}
              </ToggleButtonGroup>
            ) : null}
          </Box>
        );
      })}
    </Box>
  );
}

interface RungPanelProps {
  readonly detail: JobDetail;
  readonly coats: number;
  readonly target: readonly TargetAngle[];
  readonly onDone: () => void;
}

/** One rung: its readings, how it looks, a photo. */
export function RungPanel({ detail, coats, target, onDone }: RungPanelProps) {
  const { job, verdicts, photos, rungs } = detail;
  const add = useAddReadings(job);
  const say = useAddVerdict(job);
  const [by, setBy] = useState<'readings' | 'eye'>(target.length || coats <= 0 ? 'readings' : 'eye');
  const read = rungs.find((r) => r.rungCoats === coats) ?? null;
  const [state, setState] = useState<'cleared' | 'wet'>(read?.state ?? 'cleared');
  const { took, note } = useTakenOut();
  // What was just said stands at once: a button below must not move when the answer comes.
  const [told, setTold] = useState<readonly VerdictEvent[]>([]);
  const own = [...verdicts.filter((v) => v.coats === coats && !told.some((t) => t.view === v.view)), ...told];
  const tell = (e: VerdictEvent) => {
    setTold((old) => [...old.filter((t) => t.view !== e.view), e]);
    say.mutateAsync(e).catch(() => setTold((old) => old.filter((t) => t !== e)));
  };

  const event = (view: EyeView, verdict: Verdict | null, hue: string | null): VerdictEvent => ({
    id: newId(),
    coats,
    view,
    verdict,
    hue,
    takenAt: shopIso(),
  });

  return (
    <>
      <Box>
        <Typography variant="h2">{coats > 0 ? `The rung with ${countCoats(coats)}` : 'The bare ground'}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {coats > 0
            ? 'Cleared and dry, where the coat is even.'
            : 'The card’s ground under clear alone. It anchors the ladder, most of all over a metallic.'}
        </Typography>
      </Box>
      {coats > 0 ? (
        <ToggleButtonGroup
          exclusive
          fullWidth
          value={by}
          aria-label="How it is judged"
          onChange={(_, v: typeof by | null) => v && setBy(v)}
        >
          <ToggleButton value="readings">Readings</ToggleButton>
          <ToggleButton value="eye">By eye</ToggleButton>
        </ToggleButtonGroup>
      ) : null}
      {by === 'readings' ? (
        <>
          <ToggleButtonGroup
            exclusive
            fullWidth
            value={state}
            aria-label="State of the rung"
            onChange={(_, v: typeof state | null) => v && setState(v)}
          >
            <ToggleButton value="cleared">cleared</ToggleButton>
            <ToggleButton value="wet" sx={{ px: 0.5, whiteSpace: 'nowrap' }}>
              wet, uncleared
            </ToggleButton>
          </ToggleButtonGroup>
          <ReadingsForm
            key={`${coats}/${read?.id ?? ''}`}
            initial={read}
            kind="rung"
            rungCoats={coats}
            state={state}
            angles={target.length ? target : USUAL_ANGLES}
            saveLabel={read ? 'Keep the correction' : coats > 0 ? 'Keep this rung' : 'Keep the bare ground'}
            narrow
            known={rungs}
            simulated={job.tryOut ? { jobId: job.id } : null}
            onCancel={onDone}
            onSave={async (s) => {
              await add.mutateAsync(s);
              onDone();
            }}
          />
          {read ? (
            <TakeOut
              set={read}
              what="Take this rung’s readings out"
              onTaken={() => took(read, coats > 0 ? `The rung with ${countCoats(coats)}` : 'The bare ground')}
            />
          ) : null}
          {note}
        </>
      ) : (
        <>
          <Typography variant="body2">Against what has to be matched, this rung is:</Typography>
          <VerdictRows
            family={job.family}
            verdicts={own}
            onSay={(view, verdict, hue) => tell(event(view, verdict, hue))}
          />
          {say.error ? (
            <Typography role="alert" sx={{ color: 'error.main' }}>
              {say.error.message}
            </Typography>
          ) : null}
          <Button variant="contained" onClick={onDone}>
            Done with this rung
          </Button>
        </>
      )}
      {coats > 0 ? (
        <RungPhotos pictures={photos.filter((p) => p.kind === 'rung' && p.coats === coats)} coats={coats} job={job} />
      ) : null}
    </>
  );
}

interface RungPhotosProps {
  readonly pictures: readonly Photo[];
  readonly coats: number;
  readonly job: Job;
}

/** Photos of a rung, each with a way to take it away, and the way to another. */
function RungPhotos({ pictures, coats, job }: RungPhotosProps) {
  const { tones } = useTheme();
  const addPhoto = useAddPhoto(job);
  const removePhoto = useRemovePhoto();
  const [photoFailure, setPhotoFailure] = useState<string | null>(null);
  const attach = async (chosen: File) => {
    setPhotoFailure(null);
    try {
      const bytes = await shrinkPhoto(chosen);
      const photo: Photo = { id: newId(), kind: 'rung', coats, takenAt: shopIso() };
      await addPhoto.mutateAsync({ photo, bytes });
    } catch (error) {
      setPhotoFailure(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: '2px' }}>
        {pictures.map((p) => (
          <Box key={p.id} sx={{ position: 'relative' }}>
            <img
              src={`/api/photos/${p.id}`}
              alt={`Rung with ${countCoats(coats)}`}
              style={{ width: '100%', display: 'block' }}
            />
            <Button
              variant="text"
              color="inherit"
              onClick={() => removePhoto.mutate(p.id)}
              sx={{ position: 'absolute', right: 0, bottom: 0, background: tones.panel, minHeight: 44 }}
            >
              Take away
            </Button>
          </Box>
        ))}
      </Box>
      <FileButton
        variant="text"
        color="inherit"
        label="Photo of this rung"
        accept="image/jpeg,image/png,image/webp"
        disabled={addPhoto.isPending}
        onFile={(file) => void attach(file)}
        sx={{ px: 0.5 }}
      >
        {addPhoto.isPending ? 'Sending the photo …' : 'Attach a photo'}
      </FileButton>
      {photoFailure ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {photoFailure}
        </Typography>
      ) : null}
    </Box>
  );
}
