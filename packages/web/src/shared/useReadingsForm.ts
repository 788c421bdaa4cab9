import { useFieldArray, useForm } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import type { OfferedFile, ReadingSet } from '@steady-gleam/contracts';
import {
  CSV_MAX_LENGTH,
  type CsvProblem,
  type ImportHints,
  type ImportResult,
  type ImportQuestion,
  type Reading,
} from '@steady-gleam/core/formats';
import { useRef, useState } from 'react';
import { computeRemote } from '../worker/useCompute';
import type { Angle } from './angles';
import { ApiFailure } from './apiClient';
import { shopIso } from './clock';
import { readFileOf } from './devices/useInbox';
import { newId } from './newId';
import { numberIn } from './numberIn';
import { emptyRow, isEmpty, rowsOf, rowsSchema, type Row } from './typedReadings';
import { type Come } from './ReadingsPreview';

const SOURCES = { CSV: 'csv', CGATS: 'cgats', XML: 'xml' } as const;

export interface ReadingsFormProps {
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

/** Readings that are being typed or taken from a file, and what happens to them. */
export function useReadingsForm({
  kind,
  rungCoats,
  angles,
  onSave,
  label = '',
  objectId = null,
  state = 'cleared',
  initial = null,
  simulated = null,
}: ReadingsFormProps) {
  const form = useForm<{ rows: Row[] }>({
    resolver: yupResolver(rowsSchema),
    defaultValues: { rows: initial ? rowsOf(initial.readings, angles) : angles.map((angle) => emptyRow(angle)) },
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'rows' });
  const [failure, setFailure] = useState<string | null>(null);
  const file = useTakenFile(setFailure);
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

  return {
    ...file,
    saveTyped,
    typing,
    form,
    fields,
    remove,
    failure,
    append,
    setTyping,
    pasting,
    setPasting,
    keys,
    setKeys,
    pasted,
    setPasted,
    store,
  };
}

/** A file of readings that is being read, and what comes of it. @param setFailure says what went wrong, or that nothing did */
function useTakenFile(setFailure: (said: string | null) => void) {
  const [problems, setProblems] = useState<readonly CsvProblem[]>([]);
  const [preview, setPreview] = useState<Come | null>(null);
  const [open, setOpen] = useState<{
    name: string;
    text: string;
    hints: ImportHints;
    question: ImportQuestion;
    inboxId?: string;
  } | null>(null);
  const [busy, setBusy] = useState<string | null>(null);
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
  /** What comes of the file that is being read is dropped. */
  const stop = () => {
    reading.current = '';
    setBusy(null);
  };
  return { preview, setPreview, takeOffered, choose, take, open, busy, setBusy, problems, stop };
}
