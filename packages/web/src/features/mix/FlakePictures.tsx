import { Box, Typography, useTheme } from '@mui/material';
import { FIGURES } from '../../app/theme';
import { FlakePicture } from './FlakePicture';
import { COMPARED, type FlakeForm } from './useFlakeForm';

/** The stick, the panel and panels to compare with, at true scale as far as the screen's is known. */
export function FlakePictures({
  flake,
  zoom,
  pxPerMm,
  isScaled,
  coats,
}: {
  flake: FlakeForm;
  zoom: 1 | 5;
  pxPerMm: number;
  /** The screen's scale was measured. */
  isScaled: boolean;
  coats: string;
}) {
  const { tones } = useTheme();
  const { good, look, mix, groundLab, dose, cover } = flake;
  const labs = look ? [...look.black].reverse() : [];
  const picture = (c: number, w: number, h: number, label: string, seed = 11) =>
    good && look ? (
      <FlakePicture
        mix={mix}
        cover={c}
        zoom={zoom}
        pxPerMm={pxPerMm}
        ground={groundLab}
        flake={labs}
        width={w}
        height={h}
        seed={seed}
        label={label}
      />
    ) : (
      <Box sx={{ width: w * pxPerMm, height: h * pxPerMm, background: tones.panel }} />
    );
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 3, alignItems: 'flex-start', mt: 1 }}>
      <Box>
        <Typography variant="h3" component="div">
          The stick
        </Typography>
        {picture(
          dose?.stickCover ?? 0.5,
          9,
          62,
          `Stirring stick, ${Math.round((dose?.stickCover ?? 0) * 100)} % covered`,
          5,
        )}
        <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
          {dose ? `${Math.round(dose.stickCover * 100)} %` : ''}
        </Typography>
      </Box>
      <Box sx={{ width: 'min-content' }}>
        <Typography variant="h3" component="div">
          The panel after {coats},{' '}
          {zoom === 1 ? (isScaled ? 'as large as life' : 'about as large as life') : 'five times as large'}
        </Typography>
        {picture(cover, 100, 62, `Panel, ${Math.round(cover * 100)} % covered`)}
        <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
          {dose ? dose.covers.map((c, i) => `${i + 1}:\u00a0${Math.round(c * 100)}\u00a0%`).join('   ') : ''}
        </Typography>
      </Box>
      <Box>
        <Typography variant="h3" component="div">
          For the eye
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'auto auto' }}>
          {COMPARED.map((c) => (
            <Box key={c}>
              {picture(c, 26, 25, `${c * 100} % covered`, 3)}
              <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
                {c * 100} %
              </Typography>
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
