import { Box, Button, Typography } from '@mui/material';
import {
  FINISH_FILE_MAX_BYTES,
  finishFilesApi,
  lookedSchema,
  openedSchema,
  openFilePath,
  type FileAnswers,
  type LookedIntoFile,
} from '@steady-gleam/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { ApiFailure, sendBytes } from '../../shared/apiClient';
import { FileButton } from '../../shared/FileButton';
import { InTheFile } from './InTheFile';

const NO_ANSWERS: FileAnswers = { materials: {}, guns: {}, here: {} };

/** Opens finishes that were saved as a file, here or in another shop: looked into first, and what is missing here is asked. */
export function OpenFile() {
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
        <InTheFile
          looked={looked}
          answers={answers}
          faults={faults}
          answer={answer}
          open={open}
          setLooked={setLooked}
        />
      ) : null}
    </Box>
  );
}
