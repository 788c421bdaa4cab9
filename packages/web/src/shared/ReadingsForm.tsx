import { yupResolver } from '@hookform/resolvers/yup';
import { Alert, Box, Button, IconButton, LinearProgress, TextField, Typography, useTheme } from '@mui/material';
import CloseIcon from '@mui/icons-material/Close';
import { aSchema, bSchema, lightnessSchema, type ReadingSet } from '@steady-gleam/contracts';
import {
  CSV_MAX_LENGTH,
  READING_LIMITS,
  type CsvProblem,
  type ImportHints,
  type ImportResult,
  type ImportQuestion,
  type Reading,
} from '@steady-gleam/core/formats';
import { useRef, useState } from 'react';
import { useFieldArray, useForm } from 'react-hook-form';
import { array, number, object, string } from 'yup';
import { FIGURES } from '../app/theme';
import { ApiFailure } from './apiClient';
import { Field } from './Field';
import { FileButton } from './FileButton';
import { ImportQuestions } from './ImportQuestions';
import { computeRemote } from '../worker/useCompute';
import { newId } from './newId';
import { numberIn } from './numberIn';
import { shopIso } from './clock';
import { angleKey, type Angle } from './angles';

/** A row as typed: text, so that nothing typed is lost. A row with L, a and b all empty is an angle that was not read. */
interface Row {
  /** Which spot of several; not shown while there is one. */
  spot: string;
  /** Lamp, degrees; 45 unless the reading that is being corrected says another. */
  lamp: string;
  angle: string;
  l: string;
  a: string;
  b: string;
}

const isEmpty = (r: Partial<Row>) => !r.l?.trim() && !r.a?.trim() && !r.b?.trim();

const typedNumber = (schema: typeof lightnessSchema, label: string) =>
  string()
    .default('')
    .test('reading', function check(value) {
      if (isEmpty(this.parent as Row)) return true;
      const text = value?.trim() ?? '';
      if (text === '') return this.createError({ message: `${label} is missing.` });
      const value_ = numberIn(text);
      if (Number.isNaN(value_)) return this.createError({ message: `${label} must be a number.` });
      try {
        schema.validateSync(value_);
        return true;
      } catch (error) {
        return this.createError({ message: (error as Error).message });
      }
    });

const schema = object({
  rows: array(
    object({
      angle: string()
        .default('')
        .test('angle', function check(value) {
          if (isEmpty(this.parent as Row)) return true;
          const n = numberIn(value);
          if (Number.isNaN(n)) return this.createError({ message: 'Give the angle.' });
          try {
            number().min(READING_LIMITS.aspecularMin).max(READING_LIMITS.aspecularMax).validateSync(n);
          } catch {
            return this.createError({
              message: `Between ${READING_LIMITS.aspecularMin} and ${READING_LIMITS.aspecularMax}.`,
            });
          }
          const rows = (this.from?.[1]?.value as { rows?: Row[] } | undefined)?.rows ?? [];
          const { spot, lamp } = this.parent as Row;
          const same = rows.filter((r) => !isEmpty(r) && numberIn(r.angle) === n && r.spot === spot && r.lamp === lamp);
          return same.length > 1 ? this.createError({ message: 'This angle is here twice.' }) : true;
        }),
      l: typedNumber(lightnessSchema, 'L*'),
      a: typedNumber(aSchema, 'a*'),
      b: typedNumber(bSchema, 'b*'),
    }).required(),
  ).required(),
});

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
}

const SOURCES = { CSV: 'csv', CGATS: 'cgats', XML: 'xml' } as const;

/** Whether two lists hold the very same readings. */
const sameReadings = (a: readonly Reading[], b: readonly Reading[]): boolean =>
  a.length === b.length &&
  a.every((r, i) => (['spot', 'incidence', 'aspecular', 'l', 'a', 'b'] as const).every((k) => r[k] === b[i]![k]));

const emptyRow = (angle: Angle | null): Row => ({
  ...{ spot: '1', lamp: String(angle?.incidence ?? 45), angle: String(angle?.aspecular ?? '') },
  ...{ l: '', a: '', b: '' },
});
const shown = (v: number): string => String(Number(v.toFixed(3)));

/** Readings as rows to be corrected; angles that were not read stay open below them, for the only spot there is. */
function rowsOf(readings: readonly Reading[], angles: readonly Angle[]): Row[] {
  const rows = readings.map((r) => ({
    spot: r.spot,
    lamp: String(r.incidence),
    angle: String(r.aspecular),
    l: shown(r.l),
    a: shown(r.a),
    b: shown(r.b),
  }));
  const several = new Set(readings.map((r) => r.spot)).size > 1;
  const missing = several ? [] : angles.filter((a) => !readings.some((r) => angleKey(r) === angleKey(a)));
  return [...rows, ...missing.map((a) => ({ ...emptyRow(a), spot: readings[0]?.spot ?? '1' }))];
}

/** Readings of one spot typed angle by angle, or a CSV of several spots. */
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
}: ReadingsFormProps) {
  const { tones } = useTheme();
  const form = useForm<{ rows: Row[] }>({
    resolver: yupResolver(schema) as never,
    defaultValues: { rows: initial ? rowsOf(initial.readings, angles) : angles.map((angle) => emptyRow(angle)) },
  });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'rows' });
  const [problems, setProblems] = useState<readonly CsvProblem[]>([]);
  const [failure, setFailure] = useState<string | null>(null);
  const [preview, setPreview] = useState<{
    name: string;
    readings: readonly Reading[];
    source: ReadingSet['source'];
  } | null>(null);
  const [open, setOpen] = useState<{ name: string; text: string; hints: ImportHints; question: ImportQuestion } | null>(
    null,
  );
  const [busy, setBusy] = useState<string | null>(null);
  const [pasting, setPasting] = useState(false);
  const [pasted, setPasted] = useState('');

  const store = async (source: ReadingSet['source'], readings: readonly Reading[]) => {
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

  /** The newest file that is being read: an older answer is dropped. */
  const reading = useRef('');
  const take = async (name: string, text: string, hints: ImportHints) => {
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
    setOpen(result.ok === 'ask' ? { name, text, hints, question: result.question } : null);
    setPreview(result.ok === true ? { name, readings: result.readings, source: SOURCES[result.format] } : null);
  };

  const cell = (index: number, name: keyof Row, label: string) => {
    const error = form.formState.errors.rows?.[index]?.[name]?.message;
    return (
      <TextField
        {...form.register(`rows.${index}.${name}`)}
        size="small"
        error={!!error}
        helperText={error}
        slotProps={{
          htmlInput: {
            'aria-label': `${label} at row ${index + 1}`,
            inputMode: 'decimal',
            autoComplete: 'off',
            style: { fontFamily: FIGURES, textAlign: 'right', ...(narrow ? { paddingInline: 4, fontSize: 14 } : {}) },
          },
        }}
        sx={{ width: '100%' }}
      />
    );
  };

  const several = new Set(fields.map((f) => f.spot)).size > 1;
  const columns = narrow ? '38px repeat(3, minmax(0, 1fr)) 26px' : '92px repeat(3, minmax(90px, 130px)) 44px';
  return (
    <Box component="form" noValidate onSubmit={(e) => void saveTyped(e)} aria-label="Readings">
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: columns,
          columnGap: narrow ? 0.5 : 1.25,
          rowGap: 0.75,
          alignItems: 'start',
        }}
      >
        {['angle', 'L*', 'a*', 'b*', ''].map((h) => (
          <Typography key={h} variant="body2" sx={{ fontFamily: FIGURES, textAlign: 'right', pr: narrow ? 0.5 : 1.75 }}>
            {h}
          </Typography>
        ))}
        {fields.map((field, i) => (
          <Box key={field.id} sx={{ display: 'contents' }}>
            {several && field.spot !== fields[i - 1]?.spot ? (
              <Typography variant="h3" component="div" sx={{ gridColumn: '1 / -1', mt: i ? 1 : 0 }}>
                spot {field.spot}
              </Typography>
            ) : null}
            {cell(i, 'angle', 'Angle')}
            {cell(i, 'l', 'L*')}
            {cell(i, 'a', 'a*')}
            {cell(i, 'b', 'b*')}
            <IconButton
              aria-label={`Remove row ${i + 1}`}
              onClick={() => remove(i)}
              sx={{ width: narrow ? 26 : 44, height: 44, borderRadius: 0.5, p: 0 }}
            >
              <CloseIcon fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        Degrees from the mirror, lamp at 45°. D65, 10° observer. Leave an angle empty if it was not read.
      </Typography>
      {failure ? (
        <Alert severity="error" variant="outlined" sx={{ mt: 1.5, color: 'text.primary' }}>
          {failure}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 2 }}>
        <Button type="submit" variant="contained" disabled={form.formState.isSubmitting}>
          {saveLabel}
        </Button>
        <Button variant="outlined" onClick={() => append(emptyRow(null))}>
          Add an angle
        </Button>
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
        {onCancel ? (
          <Button variant="text" color="inherit" onClick={onCancel}>
            Leave it
          </Button>
        ) : null}
      </Box>
      {pasting ? (
        <Box sx={{ mt: 2 }}>
          <Field
            multiline
            minRows={4}
            label="Rows from a spreadsheet, with their column names"
            value={pasted}
            onChange={(e) => setPasted(e.target.value)}
            slotProps={{ htmlInput: { style: { fontFamily: FIGURES } } }}
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
          onAnswer={(h) => void take(open.name, open.text, h)}
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
        <Box sx={{ mt: 2, p: 2, border: `1px solid ${tones.hairline}`, background: tones.raised }}>
          <Typography>
            {preview.name}: {preview.readings.length} readings, {new Set(preview.readings.map((r) => r.spot)).size}{' '}
            spots, angles {[...new Set(preview.readings.map((r) => r.aspecular))].sort((p, q) => p - q).join('°, ')}°.
          </Typography>
          {known.some((k) => sameReadings(k.readings, preview.readings)) ? (
            <Typography role="alert" sx={{ mt: 0.5 }}>
              These very readings are stored already. Taking them again changes nothing.
            </Typography>
          ) : null}
          <Box
            component="table"
            aria-label="First readings"
            sx={{ mt: 1, fontFamily: FIGURES, fontSize: 14, '& td': { pr: 2.5, textAlign: 'right' } }}
          >
            <tbody>
              {preview.readings.slice(0, 5).map((r, i) => (
                <tr key={i}>
                  <td style={{ textAlign: 'left' }}>{r.spot}</td>
                  <td>{r.aspecular}°</td>
                  <td>{r.l.toFixed(1)}</td>
                  <td>{r.a.toFixed(1)}</td>
                  <td>{r.b.toFixed(1)}</td>
                </tr>
              ))}
            </tbody>
          </Box>
          <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
            <Button variant="contained" onClick={() => void store(preview.source, preview.readings)}>
              Take these readings
            </Button>
            <Button variant="outlined" onClick={() => setPreview(null)}>
              Not these
            </Button>
          </Box>
        </Box>
      ) : null}
    </Box>
  );
}
