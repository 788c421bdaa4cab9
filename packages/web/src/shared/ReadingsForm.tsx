import { type UseFieldArrayAppend, type UseFormReturn, useFieldArray, useForm } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { Alert, Box, Button, LinearProgress, Typography } from '@mui/material';
import type { OfferedFile, ReadingSet } from '@steady-gleam/contracts';
import {
  CSV_MAX_LENGTH,
  type CsvProblem,
  type ImportHints,
  type ImportResult,
  type ImportQuestion,
  type Reading,
} from '@steady-gleam/core/formats';
import { useRef, useState, type Dispatch, type SetStateAction } from 'react';
import { FIGURES } from '../app/theme';
import { computeRemote } from '../worker/useCompute';
import type { Angle } from './angles';
import { ApiFailure } from './apiClient';
import { shopIso } from './clock';
import { InboxOffers } from './devices/InboxOffers';
import { InstrumentRead } from './devices/InstrumentRead';
import { KeysField } from './devices/KeysField';
import { readFileOf } from './devices/useInbox';
import { Field } from '../ui/Field';
import { FileButton } from './FileButton';
import { ImportQuestions } from './ImportQuestions';
import { newId } from './newId';
import { numberIn } from './numberIn';
import { ReadingRows } from './ReadingRows';
import { emptyRow, isEmpty, rowsOf, rowsSchema, type Row } from './typedReadings';
import { ReadingsPreview, type Come } from './ReadingsPreview';

interface ReadingsFormProps {
  readonly kind: ReadingSet['kind'];
  readonly rungCoats: number | null;
  /** Angles to offer, degrees. */
  readonly angles: readonly Angle[];
  readonly saveLabel: string;
  readonly onSave: (set: ReadingSet) => Promise<unknown>;
  readonly onCancel?: () => void;
  readonly narrow?: boolean;
  /** Name of a chip or place; left out for a target or rung. */
  readonly label?: string;
  /** Object the readings are of; left out for the job as a whole, or a card. */
  readonly objectId?: string | null;
  readonly state?: ReadingSet['state'];
  /** What is there and is being corrected: the form opens with it. */
  readonly initial?: ReadingSet | null;
  /** What is stored already: the same readings twice are noticed. */
  readonly known?: readonly ReadingSet[];
  /** Of a try-out: its job, and the areas the instrument is held on; it is read there, nothing is typed. */
  readonly simulated?: { readonly jobId: string; readonly areaIds?: readonly string[] } | null;
}

const SOURCES = { CSV: 'csv', CGATS: 'cgats', XML: 'xml' } as const;

/** What readings are wanted for, in words. */
const sayWanted = (kind: ReadingSet['kind'], coats: number | null, label: string): string =>
  kind === 'rung' ? (coats ? `rung ${coats}` : 'the bare ground') : kind === 'target' ? 'the target' : label || 'this';

/** Readings: from the instrument, from a file that came in or is chosen, by its keys, or typed angle by angle. */
export function ReadingsForm({
  kind,
  rungCoats,
  angles,
  saveLabel,
  onSave,
  onCancel,
  narrow = false,
  label = '',
  objectId = null,
  state = 'cleared',
  known = [],
  initial = null,
  simulated = null,
}: ReadingsFormProps) {
  const form = useForm<{ rows: Row[] }>({
    resolver: yupResolver(rowsSchema),
    defaultValues: { rows: initial ? rowsOf(initial.readings, angles) : angles.map((angle) => emptyRow(angle)) },
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'rows' });
  const [problems, setProblems] = useState<readonly CsvProblem[]>([]);
  const [failure, setFailure] = useState<string | null>(null);
  const [preview, setPreview] = useState<Come | null>(null);
  const [open, setOpen] = useState<{
    name: string;
    text: string;
    hints: ImportHints;
    question: ImportQuestion;
    inboxId?: string;
  } | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
  const [pasting, setPasting] = useState(false);
  const [pasted, setPasted] = useState('');
  const [keys, setKeys] = useState(false);
  const [typing, setTyping] = useState(simulated === null || initial !== null);

  const store = async (source: ReadingSet['source'], readings: readonly Reading[], inboxId?: string) => {
    setFailure(null);
    try {
      await onSave({
        id: newId(),
        kind,
        rungCoats,
        source,
        label,
        objectId,
        state,
        doubt: null,
        takenAt: shopIso(),
        readings: [...readings],
        ...(inboxId === undefined ? {} : { inboxId }),
      });
    } catch (error) {
      setFailure(error instanceof ApiFailure ? (Object.values(error.fields)[0] ?? error.message) : String(error));
    }
  };

  const saveTyped = form.handleSubmit(async ({ rows }) => {
    const filled = rows.filter((r) => !isEmpty(r));
    if (!filled.length) {
      setFailure('Enter at least one angle, or choose a file.');
      return;
    }
    await store(
      'typed',
      filled.map((r) => ({
        spot: r.spot,
        incidence: numberIn(r.lamp),
        aspecular: numberIn(r.angle),
        l: numberIn(r.l),
        a: numberIn(r.a),
        b: numberIn(r.b),
      })),
    );
  });

  const choose = async (chosen: File) => {
    setPreview(null);
    setFailure(null);
    if (chosen.size > CSV_MAX_LENGTH) {
      setProblems([
        {
          line: null,
          message: 'This file is over 1 MB. A file of readings is a few lines; check that it is the right one.',
        },
      ]);
      return;
    }
    await take(chosen.name, await chosen.text().catch(() => ''), {});
  };

  const takeOffered = async ({ id, name }: OfferedFile) => {
    setFailure(null);
    try {
      await take(name, (await readFileOf(id)).text, {}, id);
    } catch (error) {
      setFailure(error instanceof Error ? error.message : String(error));
    }
  };

  /** The newest file that is being read: an older answer is dropped. */
  const reading = useRef('');
  const take = async (name: string, text: string, hints: ImportHints, inboxId?: string) => {
    const of = inboxId === undefined ? {} : { inboxId };
    setProblems([]);
    setOpen(null);
    setPreview(null);
    setBusy(name);
    reading.current = name;
    // In the worker, so that a large file never keeps the page waiting; it says in a sentence what it can't read.
    const result = await computeRemote(1)
      .importReadings(text, hints)
      .catch((error: unknown): ImportResult => ({
        ok: false,
        problems: [{ line: null, message: `This file could not be read: ${String(error)}` }],
      }));
    if (reading.current !== name) return;
    setBusy(null);
    setProblems(result.ok === false ? result.problems : []);
    setOpen(result.ok === 'ask' ? { name, text, hints, question: result.question, ...of } : null);
    setPreview(result.ok === true ? { name, readings: result.readings, source: SOURCES[result.format], ...of } : null);
  };

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
      {pasting ? (
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
      ) : null}
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
          <Button
            variant="text"
            color="inherit"
            sx={{ px: 0.5 }}
            onClick={() => {
              reading.current = '';
              setBusy(null);
            }}
          >
            Leave it
          </Button>
        </Box>
      )}
      {problems.length ? (
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
      ) : null}
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
