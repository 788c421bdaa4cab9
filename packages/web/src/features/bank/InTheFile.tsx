import { type AskedOfFile, type FileAnswers, type LookedIntoFile } from '@steady-gleam/contracts';
import { useLibrary } from '../../shared/library';
import { useGuns } from '../../shared/useShop';
import { Box, Button, Typography, useTheme } from '@mui/material';
import { Field } from '../../ui/Field';
import type { Dispatch, SetStateAction } from 'react';

interface InTheFileProps {
  readonly looked: LookedIntoFile;
  readonly answers: FileAnswers;
  readonly faults: Readonly<Record<string, string>>;
  readonly answer: (of: keyof FileAnswers, id: string, value: string) => void;
  readonly open: () => Promise<void>;
  readonly setLooked: Dispatch<SetStateAction<LookedIntoFile | null>>;
}

/** What is in the file, and which of it is to be opened. */
export function InTheFile({ looked, answers, faults, answer, open, setLooked }: InTheFileProps) {
  const { tones } = useTheme();
  return (
    <Box
      component="section"
      aria-label="In the file"
      sx={{ mt: 1.5, border: `1px solid ${tones.hairline}`, p: 2, background: tones.panel }}
    >
      <Typography variant="h2">
        {looked.finishes.length === 0
          ? 'Nothing in this file can be opened.'
          : looked.finishes.length === 1
            ? `In the file: ${looked.finishes[0]!.name}`
            : `In the file: ${looked.finishes.length} finishes`}
      </Typography>
      {looked.refused.map((r) => (
        <Box key={r.file} role="alert" sx={{ color: 'error.main', my: 1 }}>
          {r.file} can’t be opened:
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {r.faults.map((f) => (
              <li key={`${f.field}${f.message}`}>
                {f.field ? `${f.field}: ` : ''}
                {f.message}
              </li>
            ))}
          </Box>
        </Box>
      ))}
      {looked.finishes.map((f) => (
        <Box key={f.id} sx={{ borderTop: `1px solid ${tones.hairline}`, py: 1.25 }}>
          <Typography variant="h3">{f.name}</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
            {f.cards === 1 ? 'one card' : `${f.cards} cards`}, {f.rungs} rungs read, {f.photos} photos
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '1fr 1fr' }, gap: 1.5 }}>
            {f.here ? (
              <Field
                label="It is in the bank already"
                select
                value={answers.here[f.id] ?? ''}
                error={faults[`here.${f.id}`]}
                onChange={(e) => answer('here', f.id, e.target.value)}
              >
                <option value="">Say what to do</option>
                <option value="skip">Leave it out</option>
                <option value="copy">Open it beside the one here</option>
              </Field>
            ) : null}
            {f.asked.map((a) => (
              <Missing
                key={a.id}
                asked={a}
                value={answers[a.what === 'gun' ? 'guns' : 'materials'][a.id] ?? ''}
                error={faults[`${a.what === 'gun' ? 'guns' : 'materials'}.${a.id}`]}
                onAnswer={(v) => answer(a.what === 'gun' ? 'guns' : 'materials', a.id, v)}
              />
            ))}
          </Box>
        </Box>
      ))}
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        {looked.finishes.length && !looked.refused.length ? (
          <Button variant="contained" onClick={() => void open()}>
            Put into the bank
          </Button>
        ) : null}
        <Button variant="outlined" onClick={() => setLooked(null)}>
          Leave it
        </Button>
      </Box>
    </Box>
  );
}

const WHAT: Readonly<Record<AskedOfFile['what'], string>> = { ground: 'Ground', system: 'Mix', gun: 'Gun' };

/** Something a file names that is not on the shelf here: taken along, or one of ours in its place. */
function Missing({
  asked,
  value,
  error,
  onAnswer,
}: {
  asked: AskedOfFile;
  value: string;
  error: string | undefined;
  onAnswer: (answer: string) => void;
}) {
  const { library } = useLibrary();
  const { data: guns = [] } = useGuns();
  const ours =
    asked.what === 'gun' ? guns.map((g) => g.gun) : asked.what === 'ground' ? library.grounds : library.systems;
  return (
    <Field
      label={`${WHAT[asked.what]}: ${asked.name}`}
      select
      value={value}
      error={error}
      hint={asked.other ? 'Another one stands here under its id.' : 'It is not on the shelf here.'}
      onChange={(e) => onAnswer(e.target.value)}
    >
      <option value="">Say what to take</option>
      {asked.comes ? <option value="take">Take it onto the shelf from the file</option> : null}
      {asked.what === 'gun' ? <option value="none">None of ours</option> : null}
      {ours.map((m) => (
        <option key={m.id} value={m.id}>
          {m.name}
        </option>
      ))}
    </Field>
  );
}
