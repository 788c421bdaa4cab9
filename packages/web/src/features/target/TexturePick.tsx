import { Box, Button, ButtonBase, Typography, useTheme } from '@mui/material';
import type { Job } from '@steady-gleam/contracts';
import { TEXTURES, type Texture, type TextureRow } from '@steady-gleam/core/finishes';
import { createRandom } from '@steady-gleam/core/numeric';
import { useEffect, useRef, useState } from 'react';
import { NOMINAL_PX_PER_MM, ScreenScale, useScreenScale } from '../../shared/screenScale';
import { useChangeJob } from '../../shared/useJob';

const [W, H] = [132, 84];
/** Waves that a peel is drawn of, and how far its slopes move the edge of a lamp, in dimples. */
const [WAVES, MOVES] = [28, 0.55];

/** A lamp mirrored in a clear with some peel, at true scale where the screen's is known. */
function PeelPicture({ row, pxPerMm }: { row: TextureRow; pxPerMm: number }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const ink = ref.current?.getContext('2d');
    if (!ink) return;
    const random = createRandom(11);
    const length = Math.max(1, row.dimpleMm * pxPerMm);
    const waves = Array.from({ length: WAVES }, () => {
      const angle = 2 * Math.PI * random();
      const k = (2 * Math.PI * (0.8 + 0.5 * random())) / length;
      return { x: k * Math.cos(angle), y: k * Math.sin(angle), at: 2 * Math.PI * random() };
    });
    const image = ink.createImageData(W, H);
    const reach = row.depth * MOVES * length;
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) {
        let [slopeX, slopeY] = [0, 0];
        for (const w of waves) {
          const c = Math.cos(w.x * x + w.y * y + w.at);
          slopeX += (c * w.x * length) / (2 * Math.PI);
          slopeY += (c * w.y * length) / (2 * Math.PI);
        }
        const scale = Math.sqrt(2 / WAVES) * reach;
        // Two tubes, slanting; where the slope turns the view, their edges wander.
        const along = (x + 0.35 * y + slopeX * scale + 0.35 * slopeY * scale + 10) % 62;
        const lit = Math.max(0, Math.min(1, (11 - Math.abs(along - 31)) / 2.5 + 0.5));
        const v = 84 + 150 * lit;
        image.data.set([v, v, v, 255], 4 * (y * W + x));
      }
    ink.putImageData(image, 0, 0);
  }, [row, pxPerMm]);
  return <canvas ref={ref} width={W} height={H} aria-hidden style={{ display: 'block', width: W, height: H }} />;
}

/** How much peel what has to be matched has, by pictures of a lamp in it, and what lays the same. */
export function TexturePick({ job }: { job: Job }) {
  const { tones } = useTheme();
  const change = useChangeJob(job.id);
  const scale = useScreenScale();
  const [measuring, setMeasuring] = useState(false);
  const picked = TEXTURES.find((t) => t.id === job.texture) ?? null;
  const pick = (texture: Texture) =>
    change.mutate({ version: job.version, texture: texture === job.texture ? null : texture });
  return (
    <Box component="section" aria-label="Peel" sx={{ mt: 3, maxWidth: 720 }}>
      <Typography variant="h2">
        {picked ? `Its peel is ${picked.id}: ${picked.matchedBy}.` : 'How much peel has it?'}
      </Typography>
      <Typography sx={{ color: 'text.secondary', mb: 1 }}>
        Look at a lamp in it, not at the colour. What stands beside it is matched, not perfection; the sheet of the
        clear comes first.
      </Typography>
      <Box
        role="group"
        aria-label="Peel of what has to be matched"
        sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'stretch', gap: 1.5 }}
      >
        {TEXTURES.map((row) => (
          <ButtonBase
            key={row.id}
            aria-pressed={row.id === job.texture}
            onClick={() => pick(row.id)}
            sx={{
              flexDirection: 'column',
              alignItems: 'flex-start',
              justifyContent: 'flex-start',
              width: W,
              textAlign: 'left',
              outline: row.id === job.texture ? `4px solid ${tones.pick}` : 'none',
              background: row.id === job.texture ? tones.raised : 'none',
            }}
          >
            <PeelPicture row={row} pxPerMm={scale ?? NOMINAL_PX_PER_MM} />
            <Typography component="span" sx={{ fontSize: 14, lineHeight: 1.2, p: 0.75, pt: 0.5 }}>
              <b>{row.id}</b>: {row.told}
            </Typography>
          </ButtonBase>
        ))}
      </Box>
      {measuring ? (
        <ScreenScale onDone={() => setMeasuring(false)} />
      ) : (
        <Button variant="text" color="inherit" sx={{ px: 0 }} onClick={() => setMeasuring(true)}>
          {scale
            ? 'Drawn at true scale. Measure this screen again'
            : 'Drawn at a usual screen’s scale. Measure this screen'}
        </Button>
      )}
    </Box>
  );
}
