import { capital } from '../../shared/capital';
import { Button, Typography } from '@mui/material';
import type { PassSettings } from '@steady-gleam/contracts';
import { STRIPES_SEEN } from '@steady-gleam/core/spraying';
import { FlopStrip } from '../../shared/FlopStrip';
import type { StripesLook } from '@steady-gleam/core/looks';
import { USUAL_ANGLES } from '../../shared/angles';

/** Crest over trough of the stripes, and the cheapest change that takes them away. */
export function StripeSide({
  look,
  error,
  worst,
  isGround,
  coats,
  onPasses,
  onMist,
}: {
  look: StripesLook | null;
  error: string | null;
  /** Of face and flop. */
  worst: number | null;
  isGround: boolean;
  /** Coats that were looked at. */
  coats: number;
  onPasses: (more: Partial<PassSettings>) => void;
  /** Lays the effect in mist coats. */
  onMist: () => void;
}) {
  const atFilm = (film: number) =>
    look ? look.lut[Math.round(((film - look.from) / (look.to - look.from)) * (look.lut.length - 1))]! : [];
  return (
    <>
      <Typography variant="h2">Crest over trough</Typography>
      {look ? (
        <>
          <FlopStrip
            angles={USUAL_ANGLES}
            target={atFilm(look.crest)}
            sample={atFilm(look.trough)}
            height={110}
            label="Where most lies over where least lies, from face to flop"
          />
          <Typography>
            From {look.trough.toFixed(2)} to {look.crest.toFixed(2)} coats. In the middle of fifteen panels dE00{' '}
            {look.face.toFixed(1)} at the face, {look.flop.toFixed(1)} in the flop, from {look.spread[0].toFixed(1)} to{' '}
            {look.spread[1].toFixed(1)} by luck; {STRIPES_SEEN} is seen.
          </Typography>
          {look.change ? (
            <>
              <Typography variant="h2">Cheapest way out</Typography>
              <Typography>
                {capital(look.change.name)}: {worst!.toFixed(1)} becomes {look.change.worst.toFixed(1)} (
                {look.change.spread[0].toFixed(1)} to {look.change.spread[1].toFixed(1)})
                {look.change.hides ? ', not seen.' : '; the most that one change does.'}
              </Typography>
              {look.change.setup.coats.length === coats || isGround ? (
                <Button
                  variant="contained"
                  onClick={() => {
                    const { overlap, shift, cross, walk } = look.change!.setup;
                    onPasses({ overlap, shift, cross, walk });
                  }}
                >
                  Do that
                </Button>
              ) : (
                <Button variant="contained" onClick={onMist}>
                  Lay it in mist coats
                </Button>
              )}
            </>
          ) : worst !== null && worst > STRIPES_SEEN ? (
            <Typography>A steadier pass is what is left: slower practice on a spare panel.</Typography>
          ) : null}
        </>
      ) : error ? (
        <Typography role="alert">{error}</Typography>
      ) : (
        <Typography>Spraying it …</Typography>
      )}
      <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
        Stripes under dye can’t be polished out; the ground can’t be mended once the effect is on. A screen is not a
        proof.
      </Typography>
    </>
  );
}
