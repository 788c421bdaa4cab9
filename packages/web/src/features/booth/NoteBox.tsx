import { Box, Button, Typography, useTheme } from '@mui/material';
import type { CellRef } from '@steady-gleam/core/jobs';
import { useState } from 'react';
import { shopIso } from '../../shared/clock';
import { FileButton } from '../../shared/FileButton';
import { sendPhoto } from '../../shared/log/parcels';
import type { JobLog } from '../../shared/log/useLog';
import { newId } from '../../shared/newId';
import { shrinkPhoto } from '../../shared/shrinkPhoto';
import { TALL } from './boothStyles';

/** A line of text that is kept on a tap. */
export function TextLine({
  label,
  act,
  onKeep,
  children,
}: {
  label: string;
  act: string;
  onKeep: (text: string) => void;
  children?: React.ReactNode;
}) {
  const { tones } = useTheme();
  const [text, setText] = useState('');
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 2 }}>
      <Box
        component="input"
        aria-label={label}
        placeholder={label}
        value={text}
        maxLength={400}
        onChange={(e) => setText(e.target.value)}
        sx={{
          flex: 1,
          minWidth: 180,
          minHeight: 76,
          fontSize: 20,
          px: 1.5,
          font: 'inherit',
          background: tones.raised,
          color: 'inherit',
          border: `1px solid ${tones.hairline}`,
        }}
      />
      <Button variant="outlined" disabled={!text.trim()} sx={TALL} onClick={() => onKeep(text.trim())}>
        {act}
      </Button>
      {children}
    </Box>
  );
}

/** A note or a photo, kept with the cells it is about. */
export function NoteBox({
  jobId,
  cells,
  log,
  onDone,
}: {
  jobId: string;
  cells: readonly CellRef[];
  log: Pick<JobLog, 'tell'>;
  onDone: () => void;
}) {
  const [fault, setFault] = useState('');
  const takePhoto = async (file: File) => {
    setFault('');
    try {
      const id = newId();
      const bytes = await shrinkPhoto(file);
      await sendPhoto(jobId, jobId, { id, kind: 'job', coats: null, takenAt: shopIso() }, bytes);
      log.tell({ kind: 'photo', cells, text: id });
      onDone();
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <TextLine
      label="Note"
      act="Keep"
      onKeep={(text) => {
        log.tell({ kind: 'note', cells, text });
        onDone();
      }}
    >
      <FileButton
        variant="outlined"
        sx={TALL}
        label="Photo from the booth"
        accept="image/*"
        capture="environment"
        onFile={(file) => void takePhoto(file)}
      >
        Photo
      </FileButton>
      {fault ? <Typography role="alert">{fault}</Typography> : null}
    </TextLine>
  );
}
