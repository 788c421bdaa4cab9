import { Box, Button, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import type { JobDetail, Photo, VerdictEvent } from '@steady-gleam/contracts';
import { EYE_VIEWS, HUE_WORDS, VERDICTS, type EyeView, type HueWord, type Verdict } from '@steady-gleam/core/letdown';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useState } from 'react';
import { FileButton } from '../../shared/FileButton';
import { countCoats } from '../../shared/jobModel';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { useAddPhoto, useAddReadings, useAddVerdict, useRemovePhoto } from '../../shared/useJob';
import { shrinkPhoto } from './shrinkPhoto';
import { newId } from '../../shared/newId';
import { shopIso } from '../../shared/clock';
import { TakeOut, useTakenOut } from '../../shared/TakeOut';

const SHORT: Record<Verdict, string> = {
  'much lighter': '≪ light',
  lighter: 'lighter',
  match: 'match',
  darker: 'darker',
  'much darker': 'dark ≫',
};

/** Buttons for how something looks beside the target, from each place the painter may stand. */
export function VerdictRows({
  verdicts,
  onSay,
}: {
  verdicts: readonly { view: EyeView; verdict: Verdict | null; hue?: HueWord | null }[];
  onSay: (view: EyeView, verdict: Verdict | null, hue: HueWord | null) => void;
}) {
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
      {EYE_VIEWS.map((view) => {
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
                <ToggleButton key={v} value={v} aria-label={v} sx={{ px: 0.25, fontSize: 13.5, minWidth: 0 }}>
                  {SHORT[v]}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
            {said ? (
              <ToggleButtonGroup
                exclusive
                fullWidth
                value={hue}
                aria-label={`Hue, ${view}`}
                onChange={(_, v: HueWord | null) => onSay(view, said, v)}
              >
                {HUE_WORDS.map((v) => (
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
  const { tones } = useTheme();
  const { job, verdicts, photos, rungs } = detail;
  const add = useAddReadings(job);
  const say = useAddVerdict(job);
  const addPhoto = useAddPhoto(job);
  const removePhoto = useRemovePhoto();
  const [by, setBy] = useState<'readings' | 'eye'>(target.length || coats <= 0 ? 'readings' : 'eye');
  const read = rungs.find((r) => r.rungCoats === coats) ?? null;
  const [state, setState] = useState<'cleared' | 'wet'>(read?.state ?? 'cleared');
  const { took, note } = useTakenOut();
  const [photoFailure, setPhotoFailure] = useState<string | null>(null);
  const own = verdicts.filter((v) => v.coats === coats);
  const pictures = photos.filter((p) => p.kind === 'rung' && p.coats === coats);

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
  const event = (view: EyeView, verdict: Verdict | null, hue: HueWord | null): VerdictEvent => ({
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
            angles={target.length ? target.map((t) => t.aspecular) : [15, 25, 45, 75, 110]}
            saveLabel={read ? 'Keep the correction' : coats > 0 ? 'Keep this rung' : 'Keep the bare ground'}
            narrow
            known={rungs}
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
          <VerdictRows verdicts={own} onSay={(view, verdict, hue) => say.mutate(event(view, verdict, hue))} />
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
      ) : null}
    </>
  );
}
