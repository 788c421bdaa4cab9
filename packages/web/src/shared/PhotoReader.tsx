import { Box, Button, Typography, useTheme } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import { linearOfByte, photoLab, PHOTO_DOUBT, labOf, type Lab, type Xyz } from '@steady-gleam/core/colour';
import {
  useEffect,
  useRef,
  useState,
  type Dispatch,
  type KeyboardEvent,
  type RefObject,
  type SetStateAction,
} from 'react';
import { FIGURES } from '../app/theme';
import { Field } from '../ui/Field';
import { FileButton } from './FileButton';
import { cssOf } from './screenColour';
import { numberIn } from './numberIn';
import { oneSpotTarget } from './oneSpot';
import { Slide } from '../ui/Slide';
import { sayLab } from './sayLab';

/** Photos are looked at no wider than this: enough for a mean, quick on a tablet. */
const WIDEST = 900;
const MAX_BYTES = 10 * 1024 * 1024;

interface Mark {
  readonly x: number;
  readonly y: number;
}

const START_MARKS = { grey: { x: 0.25, y: 0.5 }, sample: { x: 0.7, y: 0.5 } } as const;

/** Mean of what lies within a mark, linear RGB. @param radius fraction of the width */
function meanOf(ink: CanvasRenderingContext2D, mark: Mark, radius: number): Xyz {
  const r = Math.max(2, Math.round(radius * ink.canvas.width));
  const x = Math.round(mark.x * ink.canvas.width) - r;
  const y = Math.round(mark.y * ink.canvas.height) - r;
  const { data } = ink.getImageData(Math.max(0, x), Math.max(0, y), 2 * r, 2 * r);
  const sum = [0, 0, 0];
  let count = 0;
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3] === 0) continue;
    for (let k = 0; k < 3; k++) sum[k]! += linearOfByte(data[i + k]!);
    count++;
  }
  return labOf(sum.map((v) => v / Math.max(1, count)));
}

/** The finish's colour by the two marks, the grey taken for what it is; null where it can be no reference, or before there is a photo. */
function useMarkedLab(
  bitmap: ImageBitmap | null,
  marks: { readonly grey: Mark; readonly sample: Mark },
  radius: number,
  greyL: number,
): { readonly canvas: RefObject<HTMLCanvasElement | null>; readonly lab: Lab | null } {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [lab, setLab] = useState<Lab | null>(null);

  useEffect(() => {
    const element = canvas.current;
    if (!bitmap || !element) return;
    const scale = Math.min(1, WIDEST / bitmap.width);
    element.width = Math.round(bitmap.width * scale);
    element.height = Math.round(bitmap.height * scale);
    const ink = element.getContext('2d', { willReadFrequently: true })!;
    ink.drawImage(bitmap, 0, 0, element.width, element.height);
    const mean = (mark: Mark): Xyz => meanOf(ink, mark, radius);
    setLab(photoLab(mean(marks.grey), mean(marks.sample), greyL));
  }, [bitmap, marks, radius, greyL]);
  return { canvas, lab };
}

interface MarkerProps {
  readonly which: 'grey' | 'sample';
  readonly at: Mark;
  readonly radius: number;
  readonly isActive: boolean;
  readonly onActive: () => void;
  readonly onMove: (e: KeyboardEvent) => void;
}

/** A ring over the photo, moved by arrow keys. */
function Marker({ which, at, radius, isActive, onActive, onMove }: MarkerProps) {
  const { tones } = useTheme();
  return (
    <button
      type="button"
      aria-label={`${which === 'grey' ? 'Grey card' : 'Finish'}: move with the arrow keys`}
      aria-pressed={isActive}
      onClick={onActive}
      onKeyDown={onMove}
      style={{
        position: 'absolute',
        left: `${at.x * 100}%`,
        top: `${at.y * 100}%`,
        width: `${radius * 200}%`,
        aspectRatio: '1',
        transform: 'translate(-50%, -50%)',
        border: `3px solid ${which === 'grey' ? '#f4f4f4' : tones.pick}`,
        outline: '1px solid #101010',
        background: 'none',
        padding: 0,
        pointerEvents: 'none',
      }}
    />
  );
}

/** A colour from a photo that shows a grey card beside the finish: the painter marks both. */
export function PhotoReader({
  onSave,
  onCancel,
}: {
  onSave: (set: ReadingSet) => Promise<unknown>;
  onCancel: () => void;
}) {
  const [bitmap, setBitmap] = useState<ImageBitmap | null>(null);
  const [marks, setMarks] = useState<{ grey: Mark; sample: Mark }>(START_MARKS);
  const [active, setActive] = useState<'grey' | 'sample'>('grey');
  const [radius, setRadius] = useState(0.04);
  const [greyL, setGreyL] = useState('50');
  const [angle, setAngle] = useState('45');
  const [failure, setFailure] = useState<string | null>(null);
  const { canvas, lab } = useMarkedLab(bitmap, marks, radius, numberIn(greyL) || 50);

  const choose = async (file: File) => {
    setFailure(null);
    if (file.size > MAX_BYTES) return setFailure('This photo is over 10 MB. Save it smaller and choose it again.');
    try {
      setBitmap(await createImageBitmap(file));
    } catch {
      setFailure('This is not a picture this browser can read. Choose a JPEG, PNG or WebP photo.');
    }
  };
  const move = (e: KeyboardEvent, which: 'grey' | 'sample') => {
    const by = { ArrowLeft: [-0.01, 0], ArrowRight: [0.01, 0], ArrowUp: [0, -0.01], ArrowDown: [0, 0.01] }[e.key];
    if (!by) return;
    e.preventDefault();
    const clamp = (v: number) => Math.min(1, Math.max(0, v));
    const m = marks[which];
    setMarks({ ...marks, [which]: { x: clamp(m.x + by[0]!), y: clamp(m.y + by[1]!) } });
  };
  const aspecular = numberIn(angle);
  const save = async () => {
    if (!lab) return;
    setFailure(null);
    try {
      await onSave(oneSpotTarget('photo', aspecular, lab, PHOTO_DOUBT));
    } catch (error) {
      setFailure(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Box component="section" aria-label="Reading a photo" sx={{ maxWidth: 760 }}>
      <Typography sx={{ mb: 1 }}>
        Photograph the finish with a grey card beside it, in one light, not into the mirror. Mark the grey, then the
        finish.
      </Typography>
      <FileButton
        variant={bitmap ? 'outlined' : 'contained'}
        label="Photo with a grey card"
        accept="image/jpeg,image/png,image/webp"
        onFile={(file) => void choose(file)}
      >
        {bitmap ? 'Another photo' : 'Choose a photo'}
      </FileButton>
      {bitmap ? (
        <>
          <Box
            sx={{ position: 'relative', mt: 1.5, cursor: 'crosshair', lineHeight: 0 }}
            onClick={(e) => {
              const box = e.currentTarget.getBoundingClientRect();
              setMarks({
                ...marks,
                [active]: { x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height },
              });
              if (active === 'grey') setActive('sample');
            }}
          >
            <canvas ref={canvas} style={{ width: '100%' }} aria-label="The photo" role="img" />
            {(['grey', 'sample'] as const).map((which) => (
              <Marker
                key={which}
                which={which}
                at={marks[which]}
                radius={radius}
                isActive={active === which}
                onActive={() => setActive(which)}
                onMove={(e) => move(e, which)}
              />
            ))}
          </Box>
          <GreyFields
            radius={radius}
            setRadius={setRadius}
            greyL={greyL}
            setGreyL={setGreyL}
            angle={angle}
            setAngle={setAngle}
            aspecular={aspecular}
          />
          {lab ? (
            <PhotoColour lab={lab} />
          ) : (
            <Typography role="alert" sx={{ mt: 1.5 }}>
              The grey is too dark or burnt out to be a reference. Mark another place, or take the photo again.
            </Typography>
          )}
        </>
      ) : null}
      {failure ? (
        <Typography role="alert" sx={{ mt: 1, color: 'error.main' }}>
          {failure}
        </Typography>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
        <Button variant="contained" disabled={!lab} onClick={() => void save()}>
          Keep this as the target
        </Button>
        <Button variant="outlined" onClick={onCancel}>
          Leave it
        </Button>
      </Box>
    </Box>
  );
}

interface GreyFieldsProps {
  readonly radius: number;
  readonly setRadius: Dispatch<SetStateAction<number>>;
  readonly greyL: string;
  readonly setGreyL: Dispatch<SetStateAction<string>>;
  readonly angle: string;
  readonly setAngle: Dispatch<SetStateAction<string>>;
  readonly aspecular: number;
}

/** The grey card, and how large a place is read. */
function GreyFields({ radius, setRadius, greyL, setGreyL, angle, setAngle, aspecular }: GreyFieldsProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 2, mt: 1.5, alignItems: 'end' }}>
      <Box>
        <Typography variant="h3" id="mark-size">
          Size of the marks
        </Typography>
        <Slide aria-labelledby="mark-size" min={0.01} max={0.12} step={0.01} value={radius} onChange={setRadius} />
      </Box>
      <Field
        label="L* of the grey card"
        value={greyL}
        onChange={(e) => setGreyL(e.target.value)}
        decimal
        error={numberIn(greyL) >= 10 && numberIn(greyL) <= 95 ? undefined : 'Between 10 and 95.'}
      />
      <Field
        label="Degrees from the mirror"
        value={angle}
        onChange={(e) => setAngle(e.target.value)}
        decimal
        error={angle.trim() !== '' && aspecular >= -60 && aspecular <= 130 ? undefined : 'Between -60 and 130.'}
      />
    </Box>
  );
}

/** The colour that was found, and how far it can be trusted. */
function PhotoColour({ lab }: { readonly lab: Lab }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 1.5 }} data-testid="photo-lab">
      <Box sx={{ width: 90, height: 56, background: cssOf(lab) }} aria-hidden />
      <Typography sx={{ fontFamily: FIGURES, whiteSpace: 'nowrap' }}>{sayLab(lab, 1)}</Typography>
      <Typography variant="body2">
        give or take {PHOTO_DOUBT} units. It is used with that doubt: what passes is wider by it.
      </Typography>
    </Box>
  );
}
