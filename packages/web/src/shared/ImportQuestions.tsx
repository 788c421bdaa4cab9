import { Box, Button, Typography, useTheme } from '@mui/material';
import type { ImportHints, ImportQuestion } from '@steady-gleam/core/formats';
import { useState } from 'react';
import { Field } from '../ui/Field';
import { numberIn } from './numberIn';

const COLUMNS = [
  ['aspecular', 'angle'],
  ['l', 'L*'],
  ['a', 'a*'],
  ['b', 'b*'],
  ['spot', 'spot, if there is one'],
] as const;

const intoView = (box: HTMLElement | null) => box?.scrollIntoView({ block: 'nearest' });

/** What a file leaves open: its angle, its scale, or which column is which. */
export function ImportQuestions({
  open,
  onAnswer,
}: {
  open: { name: string; hints: ImportHints; question: ImportQuestion };
  onAnswer: (hints: ImportHints) => void;
}) {
  const { tones } = useTheme();
  const { question, hints, name } = open;
  const [angle, setAngle] = useState('45');
  const [columns, setColumns] = useState<Record<string, string>>({});
  const aspecular = numberIn(angle);
  return (
    <Box
      // It opens below what was pasted, out of sight on a small screen.
      ref={intoView}
      role="group"
      aria-label="A question about this file"
      sx={{ mt: 2, p: 2, border: `1px solid ${tones.hairline}`, background: tones.raised, maxWidth: 620 }}
    >
      {question.ask === 'angle' ? (
        <>
          <Typography sx={{ mb: 1 }}>{name} does not say at which angle it was read.</Typography>
          <Field
            label="Degrees from the mirror, lamp at 45°"
            value={angle}
            onChange={(e) => setAngle(e.target.value)}
            error={
              angle.trim() === '' || !(aspecular >= -60 && aspecular <= 130)
                ? 'An angle between -60 and 130.'
                : undefined
            }
            decimal
          />
          <Button
            sx={{ mt: 1 }}
            variant="contained"
            disabled={!(aspecular >= -60 && aspecular <= 130)}
            onClick={() => onAnswer({ ...hints, aspecular })}
          >
            It is {angle}°
          </Button>
        </>
      ) : question.ask === 'percent' ? (
        <>
          <Typography sx={{ mb: 1 }}>
            The largest reflectance is {question.largest.toFixed(2)}. Is that {question.largest.toFixed(1)} percent, or{' '}
            {question.largest.toFixed(1)} times white, as a metallic near the mirror?
          </Typography>
          <Box sx={{ display: 'flex', gap: 1 }}>
            <Button variant="contained" onClick={() => onAnswer({ ...hints, percent: true })}>
              Percent
            </Button>
            <Button variant="outlined" onClick={() => onAnswer({ ...hints, percent: false })}>
              Times white
            </Button>
          </Box>
        </>
      ) : (
        <>
          <Typography sx={{ mb: 1 }}>Which column is which?</Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
            {COLUMNS.map(([key, label]) => (
              <Field
                key={key}
                label={label}
                value={columns[key] ?? ''}
                onChange={(e) => setColumns({ ...columns, [key]: e.target.value })}
                select
              >
                <option value="">not here</option>
                {question.header.map((h, i) => (
                  <option key={i} value={String(i)}>
                    {h || `column ${i + 1}`}: {question.first[i]}
                  </option>
                ))}
              </Field>
            ))}
          </Box>
          <Button
            sx={{ mt: 1 }}
            variant="contained"
            disabled={!['aspecular', 'l', 'a', 'b'].every((k) => columns[k])}
            onClick={() =>
              onAnswer({
                ...hints,
                columns: Object.fromEntries(
                  Object.entries(columns)
                    .filter(([, v]) => v !== '')
                    .map(([k, v]) => [k, Number.parseInt(v, 10)]),
                ),
              })
            }
          >
            Read it so
          </Button>
        </>
      )}
    </Box>
  );
}
