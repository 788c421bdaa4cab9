import { type UseFieldArrayAppend, type UseFormReturn } from 'react-hook-form';
import { Alert, Box, Button, LinearProgress, Typography } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import { type Dispatch, type SetStateAction } from 'react';
import { FIGURES } from '../app/theme';
import { InboxOffers } from './devices/InboxOffers';
import { InstrumentRead } from './devices/InstrumentRead';
import { KeysField } from './devices/KeysField';
import { Field } from '../ui/Field';
import { FileButton } from './FileButton';
import { ImportQuestions } from './ImportQuestions';
import { ReadingRows } from './ReadingRows';
import { emptyRow, type Row } from './typedReadings';
import { ReadingsPreview } from './ReadingsPreview';
import { useReadingsForm, type ReadingsFormProps } from './useReadingsForm';

/** What readings are wanted for, in words. */
const sayWanted = (kind: ReadingSet['kind'], coats: number | null, label: string): string =>
  kind === 'rung' ? (coats ? `rung ${coats}` : 'the bare ground') : kind === 'target' ? 'the target' : label || 'this';

/** Readings: from the instrument, from a file that came in or is chosen, by its keys, or typed angle by angle. */
export function ReadingsForm(props: ReadingsFormProps) {
  const {
    kind,
    rungCoats,
    angles,
    saveLabel,
    onCancel,
    narrow = false,
    label = '',
    objectId = null,
    state = 'cleared',
    known = [],
    simulated = null,
  } = props;
  const {
    saveTyped,
    preview,
    setPreview,
    takeOffered,
    typing,
    form,
    fields,
    remove,
    failure,
    append,
    setTyping,
    choose,
    pasting,
    setPasting,
    keys,
    setKeys,
    pasted,
    setPasted,
    take,
    open,
    busy,
    stop,
    problems,
    store,
  } = useReadingsForm(props);

  return (
    <Box component="form" noValidate onSubmit={(e) => void saveTyped(e)} aria-label="Readings">
      {preview && simulated ? null : simulated ? (
        <InstrumentRead
          jobId={simulated.jobId}
          held={{ on: kind, label, coats: rungCoats, state, objectId, areaIds: [...(simulated.areaIds ?? [])] }}
          onRead={(readings) => setPreview({ name: 'The instrument', readings, source: 'simulated' })}
        />
      ) : (
        <InboxOffers wanted={sayWanted(kind, rungCoats, label)} onTake={(file) => void takeOffered(file)} />
      )}
      {typing ? <ReadingRows form={form} fields={fields} onRemove={remove} narrow={narrow} /> : null}
      {failure ? (
        <Alert severity="error" variant="outlined" sx={{ mt: 1.5, color: 'text.primary' }}>
          {failure}
        </Alert>
      ) : null}
      <ReadingsActions
        typing={typing}
        simulated={simulated}
        form={form}
        saveLabel={saveLabel}
        append={append}
        setTyping={setTyping}
        choose={choose}
        pasting={pasting}
        setPasting={setPasting}
        keys={keys}
        setKeys={setKeys}
        onCancel={onCancel}
      />
      {keys ? (
        <KeysField
          angles={angles}
          onRead={(readings) => setPreview({ name: 'By the instrument’s keys', readings, source: 'keys' })}
        />
      ) : null}
      {pasting ? <PastedRows pasted={pasted} setPasted={setPasted} take={take} /> : null}
      {open ? (
        <ImportQuestions
          key={JSON.stringify(open.hints)}
          open={open}
          onAnswer={(h) => void take(open.name, open.text, h, open.inboxId)}
        />
      ) : null}
      {busy === null ? null : (
        <Box role="status" sx={{ mt: 2, maxWidth: 420 }}>
          <Typography variant="body2">Reading {busy} …</Typography>
          <LinearProgress color="inherit" aria-label="Reading the file" />
          <Button variant="text" color="inherit" sx={{ px: 0.5 }} onClick={stop}>
            Leave it
          </Button>
        </Box>
      )}
      {problems.length ? <FileProblems problems={problems} /> : null}
      {preview ? (
        <ReadingsPreview
          come={preview}
          known={known}
          keepLabel={simulated ? saveLabel : 'Take these readings'}
          onKeep={() => void store(preview.source, preview.readings, preview.inboxId)}
          onDrop={() => setPreview(null)}
        />
      ) : null}
    </Box>
  );
}

interface ReadingsActionsProps {
  readonly typing: boolean;
  readonly simulated: { readonly jobId: string; readonly areaIds?: readonly string[] } | null;
  readonly form: UseFormReturn<{ rows: Row[] }>;
  readonly saveLabel: string;
  readonly append: UseFieldArrayAppend<{ rows: Row[] }, 'rows'>;
  readonly setTyping: Dispatch<SetStateAction<boolean>>;
  readonly choose: (chosen: File) => Promise<void>;
  readonly pasting: boolean;
  readonly setPasting: Dispatch<SetStateAction<boolean>>;
  readonly keys: boolean;
  readonly setKeys: Dispatch<SetStateAction<boolean>>;
  readonly onCancel: (() => void) | undefined;
}

/** Keeps what was typed, or takes it from elsewhere. */
function ReadingsActions({
  typing,
  simulated,
  form,
  saveLabel,
  append,
  setTyping,
  choose,
  pasting,
  setPasting,
  keys,
  setKeys,
  onCancel,
}: ReadingsActionsProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 2 }}>
      {typing ? (
        <>
          <Button type="submit" variant={simulated ? 'outlined' : 'contained'} disabled={form.formState.isSubmitting}>
            {saveLabel}
          </Button>
          <Button variant="outlined" onClick={() => append(emptyRow(null))}>
            Add an angle
          </Button>
        </>
      ) : (
        <Button variant="text" color="inherit" onClick={() => setTyping(true)}>
          Type it instead
        </Button>
      )}
      {simulated ? null : (
        <>
          <FileButton
            variant="outlined"
            label="File of readings"
            accept=".csv,.txt,.cgats,.it8,.cxf,.xml,text/csv,text/plain,text/xml"
            onFile={(file) => void choose(file)}
          >
            Import a file
          </FileButton>
          <Button variant="outlined" aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
            Paste a table
          </Button>
          <Button variant="outlined" aria-expanded={keys} onClick={() => setKeys(!keys)}>
            By its keys
          </Button>
        </>
      )}
      {onCancel ? (
        <Button variant="text" color="inherit" onClick={onCancel}>
          Leave it
        </Button>
      ) : null}
    </Box>
  );
}

interface PastedRowsProps {
  readonly pasted: ReturnType<typeof useReadingsForm>['pasted'];
  readonly setPasted: ReturnType<typeof useReadingsForm>['setPasted'];
  readonly take: ReturnType<typeof useReadingsForm>['take'];
}

/** Rows of a spreadsheet, pasted. */
function PastedRows({ pasted, setPasted, take }: PastedRowsProps) {
  return (
    <Box sx={{ mt: 2 }}>
      <Field
        multiline
        minRows={4}
        label="Rows from a spreadsheet, with their column names"
        value={pasted}
        onChange={(e) => setPasted(e.target.value)}
        style={{ fontFamily: FIGURES }}
      />
      <Button sx={{ mt: 1 }} variant="outlined" onClick={() => void take('What you pasted', pasted, {})}>
        Read this table
      </Button>
    </Box>
  );
}

interface FileProblemsProps {
  readonly problems: ReturnType<typeof useReadingsForm>['problems'];
}

/** What is wrong with a file, line by line. */
function FileProblems({ problems }: FileProblemsProps) {
  return (
    <Alert severity="error" variant="outlined" sx={{ mt: 2, color: 'text.primary' }}>
      Nothing was taken from this file.
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {problems.slice(0, 8).map((p) => (
          <li key={`${p.line}-${p.message}`}>
            {p.line === null ? '' : `Line ${p.line}: `}
            {p.message}
          </li>
        ))}
      </Box>
    </Alert>
  );
}
