import { Box, Button, Typography, useTheme } from '@mui/material';
import {
  FINISH_FILE_MAX_BYTES,
  finishFilesApi,
  lookedSchema,
  openedSchema,
  openFilePath,
  type AskedOfFile,
  type FileAnswers,
  type LookedIntoFile,
} from '@steady-gleam/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { ApiFailure, sendBytes } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { FileButton } from '../../shared/FileButton';
import { useLibrary } from '../../shared/library';
import { useGuns } from '../../shared/useShop';

const NO_ANSWERS: FileAnswers = { materials: {}, guns: {}, here: {} };

/** Opens finishes that were saved as a file, here or in another shop: looked into first, and what is missing here is asked. */
export function OpenFile() {
  const { tones } = useTheme();
  const client = useQueryClient();
  const [bytes, setBytes] = useState<{ name: string; blob: Blob } | null>(null);
  const [looked, setLooked] = useState<LookedIntoFile | null>(null);
  const [answers, setAnswers] = useState<FileAnswers>(NO_ANSWERS);
  const [faults, setFaults] = useState<Readonly<Record<string, string>>>({});
  const [said, setSaid] = useState<string | null>(null);
  const [opened, setOpened] = useState<readonly { id: string; name: string }[] | null>(null);
  const fail = (error: unknown) => {
    const fields = error instanceof ApiFailure ? error.fields : {};
    setFaults(fields);
    setSaid(Object.keys(fields).length ? null : error instanceof Error ? error.message : String(error));
  };
  const choose = async (file: File) => {
    setLooked(null);
    setOpened(null);
    setFaults({});
    setSaid(null);
    setAnswers(NO_ANSWERS);
    if (file.size > FINISH_FILE_MAX_BYTES) {
      setSaid(`This file is over ${FINISH_FILE_MAX_BYTES / 1024 / 1024} MB.`);
      return;
    }
    const blob = new Blob([file], { type: 'application/octet-stream' });
    try {
      const query = new URLSearchParams({ name: file.name }).toString();
      setLooked(await lookedSchema.validate(await sendBytes(`${finishFilesApi.look.path}?${query}`, blob)));
      setBytes({ name: file.name, blob });
    } catch (error) {
      fail(error);
    }
  };
  const open = async () => {
    setFaults({});
    setSaid(null);
    try {
      const path = `${openFilePath(answers)}&${new URLSearchParams({ name: bytes!.name }).toString()}`;
      const { finishes } = await openedSchema.validate(await sendBytes(path, bytes!.blob));
      setOpened(finishes);
      setLooked(null);
      await client.invalidateQueries();
    } catch (error) {
      fail(error);
    }
  };
  const answer = (of: keyof FileAnswers, id: string, value: string) =>
    setAnswers({ ...answers, [of]: { ...answers[of], [id]: value } });
  const others = Object.entries(faults).filter(([k]) => !/^(materials|guns|here)\./.test(k));
  return (
    <Box sx={{ mt: 2.5 }}>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <FileButton
          label="File of finishes"
          accept=".json,.zip,application/json,application/zip"
          variant="outlined"
          onFile={(file) => void choose(file)}
        >
          Open a file
        </FileButton>
        <Button component="a" href={finishFilesApi.saveZip.path} download variant="text" color="inherit">
          Save the whole bank as a zip
        </Button>
      </Box>
      {said || others.length ? (
        <Box role="alert" sx={{ color: 'error.main', mt: 1 }}>
          {said}
          {others.map(([k, v]) => (
            <div key={k}>{v}</div>
          ))}
        </Box>
      ) : null}
      {opened ? (
        <Typography role="status" sx={{ mt: 1 }}>
          {opened.length === 0
            ? 'Nothing was opened; everything in it was left out.'
            : opened.length === 1
              ? 'In the bank now: '
              : `${opened.length} finishes are in the bank now: `}
          {opened.map((f, i) => (
            <span key={f.id}>
              {i ? ', ' : ''}
              <Link to={`/bank/${f.id}`} style={{ color: 'inherit' }}>
                {f.name}
              </Link>
            </span>
          ))}
        </Typography>
      ) : null}
      {looked ? (
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
      ) : null}
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
