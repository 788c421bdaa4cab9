import { Box, Button, Typography } from '@mui/material';
import type { AngleLab } from '@steady-gleam/core/bank';
import type { Lab } from '@steady-gleam/core/colour';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { useState } from 'react';
import { FlopStrip } from '../../shared/FlopStrip';
import { PhotoReader } from '../../shared/PhotoReader';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { cssOf } from '../../shared/screenColour';
import { askedOf } from './bankModel';
import { Slide } from '../../ui/Slide';

/** A look is held against the readings between face and flop, under the usual lamp. */
const BETWEEN = { incidence: 45, aspecular: 45 } as const;
const START = { l: 50, c: 30, h: 230 } as const;

const labOf = ({ l, c, h }: { l: number; c: number; h: number }): Lab => [
  l,
  c * Math.cos((h * Math.PI) / 180),
  c * Math.sin((h * Math.PI) / 180),
];

/** What the bank is searched for: what an object reads, typed or from a file, or a colour, picked or photographed. */
export function AskReading({
  by,
  asked,
  onAsk,
}: {
  by: 'reading' | 'look';
  asked: readonly AngleLab[] | null;
  onAsk: (asked: readonly AngleLab[] | null) => void;
}) {
  return by === 'reading' ? <ByReading asked={asked} onAsk={onAsk} /> : <ByLook onAsk={onAsk} />;
}

function ByReading({
  asked,
  onAsk,
}: {
  asked: readonly AngleLab[] | null;
  onAsk: (asked: readonly AngleLab[] | null) => void;
}) {
  const [open, setOpen] = useState(asked === null);
  if (open)
    return (
      <Box sx={{ maxWidth: 640, mb: 2 }}>
        <ReadingsForm
          kind="target"
          rungCoats={null}
          angles={FIVE_ANGLES}
          saveLabel="Find the nearest"
          onSave={async (set) => {
            onAsk(askedOf(set.readings));
            setOpen(false);
            return Promise.resolve();
          }}
          {...(asked ? { onCancel: () => setOpen(false) } : {})}
        />
      </Box>
    );
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mb: 1.5 }}>
      <Box sx={{ width: 320 }}>
        <FlopStrip angles={asked!} target={asked!.map((g) => g.lab)} height={44} label="What you look for" />
      </Box>
      <Button variant="outlined" onClick={() => setOpen(true)}>
        Another reading
      </Button>
    </Box>
  );
}

/** A colour between face and flop: sliders that answer while they move, or a photo with a grey card. */
function ByLook({ onAsk }: { onAsk: (asked: readonly AngleLab[] | null) => void }) {
  const [look, setLook] = useState<{ l: number; c: number; h: number }>(START);
  const [photo, setPhoto] = useState(false);
  const set = (next: typeof look) => {
    setLook(next);
    onAsk([{ ...BETWEEN, lab: labOf(next) }]);
  };
  if (photo)
    return (
      <PhotoReader
        onCancel={() => setPhoto(false)}
        onSave={async (read) => {
          onAsk(askedOf(read.readings));
          setPhoto(false);
          return Promise.resolve();
        }}
      />
    );
  const sliders = [
    ['l', 'Lightness L*', 100],
    ['c', 'Chroma C*', 110],
    ['h', 'Hue h, °', 360],
  ] as const;
  return (
    <Box sx={{ display: 'flex', gap: 2.5, alignItems: 'center', mb: 1.5, flexWrap: 'wrap' }}>
      <Box sx={{ width: 120, height: 96, background: cssOf(labOf(look)) }} role="img" aria-label="Look you pick" />
      <Box sx={{ flex: '1 1 300px', maxWidth: 420 }}>
        {sliders.map(([k, name, max]) => (
          <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '120px 1fr 44px', alignItems: 'center', gap: 1.5 }}>
            <Typography variant="body2">{name}</Typography>
            <Slide aria-label={name} value={look[k]} min={0} max={max} onChange={(v) => set({ ...look, [k]: v })} />
            <Typography variant="body2">{look[k]}</Typography>
          </Box>
        ))}
      </Box>
      <Button variant="outlined" onClick={() => setPhoto(true)}>
        From a photo
      </Button>
    </Box>
  );
}
