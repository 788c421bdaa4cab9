import { fileName } from '@steady-gleam/core/formats';
import { Box, Button, Typography } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { FIGURES } from '../app/theme';
import { downloadPng } from './download';
import { cssOf, exposuresByAngle, fitsScreen, inkOn } from './screenColour';
import { angleKey, sayAngle, type Angle } from './angles';

interface FlopStripProps {
  readonly angles: readonly Angle[];
  /** What is to be matched; upper half. */
  readonly target: readonly Lab[];
  /** Lower half, touching; left out when there is nothing to compare. */
  readonly sample?: readonly Lab[];
  /** px, or as CSS has it. */
  readonly height?: number | string;
  readonly label: string;
  /** Offers the strip as a picture under this name. */
  readonly fileTitle?: string;
}

/** Colours from face to flop, target over sample, sharing an edge: no gap, no border. */
export function FlopStrip({ angles, target, sample, height = 116, label, fileTitle }: FlopStripProps) {
  const exposures = exposuresByAngle(sample ? [target, sample] : [target]);
  const beyond = [...target, ...(sample ?? [])].some((lab, i) => !fitsScreen(lab, exposures[i % target.length]));
  // A colour the screen cannot show carries a notch in its corner.
  const swatch = (lab: Lab, g: number) => (
    <div style={{ flex: 1, position: 'relative', background: cssOf(lab, exposures[g]) }}>
      {fitsScreen(lab, exposures[g]) ? null : (
        <div
          style={{
            position: 'absolute',
            top: 0,
            right: 0,
            borderStyle: 'solid',
            borderWidth: '0 9px 9px 0',
            borderColor: `transparent ${inkOn(lab, exposures[g])} transparent transparent`,
          }}
        />
      )}
    </div>
  );
  // Angles of one lamp stand together.
  const lamps = angles.reduce<Angle[][]>((all, a) => {
    const last = all.at(-1);
    if (last?.[0]!.incidence === a.incidence) last.push(a);
    else all.push([a]);
    return all;
  }, []);
  const save = () => {
    const canvas = document.createElement('canvas');
    const [width, half] = [240, 260];
    canvas.width = width * angles.length;
    canvas.height = half * (sample ? 2 : 1) + 60;
    const ink = canvas.getContext('2d')!;
    ink.fillStyle = '#ababab';
    ink.fillRect(0, 0, canvas.width, canvas.height);
    ink.font = '30px sans-serif';
    ink.textAlign = 'center';
    angles.forEach((angle, g) => {
      [target[g]!, ...(sample ? [sample[g]!] : [])].forEach((lab, i) => {
        ink.fillStyle = cssOf(lab, exposures[g]);
        ink.fillRect(g * width, i * half, width, half);
      });
      ink.fillStyle = '#121212';
      ink.fillText(sayAngle(angle), (g + 0.5) * width, canvas.height - 20);
    });
    downloadPng(canvas, fileName(fileTitle!));
  };
  return (
    <Box>
      <div role="img" aria-label={label} style={{ display: 'flex', height }}>
        {angles.map((angle, g) => (
          <div key={angleKey(angle)} style={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
            {swatch(target[g]!, g)}
            {sample ? swatch(sample[g]!, g) : null}
          </div>
        ))}
      </div>
      <div style={{ display: 'flex', fontFamily: FIGURES, fontSize: 13, marginTop: 4 }} aria-hidden>
        {angles.map((angle) => (
          <span key={angleKey(angle)} style={{ flex: 1, textAlign: 'center', fontSize: angles.length > 7 ? 11.5 : 13 }}>
            {angle.aspecular}°
          </span>
        ))}
      </div>
      {lamps.length > 1 ? (
        <div style={{ display: 'flex', fontFamily: FIGURES, fontSize: 11.5 }} aria-hidden>
          {lamps.map((own) => (
            <span
              key={own[0]!.incidence}
              style={{
                flex: own.length,
                textAlign: 'center',
                borderTop: '1px solid currentColor',
                margin: '1px 3px 0',
              }}
            >
              lamp {own[0]!.incidence}°
            </span>
          ))}
        </div>
      ) : null}
      {fileTitle ? (
        <Button
          variant="text"
          color="inherit"
          size="small"
          onClick={save}
          sx={{ minHeight: 44, px: 1, mb: -1.5, float: 'right' }}
        >
          Picture
        </Button>
      ) : null}
      {beyond ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          ◥ beyond this screen
        </Typography>
      ) : null}
    </Box>
  );
}
