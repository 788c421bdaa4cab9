import { Alert, Box, Button, Typography, useTheme } from '@mui/material';
import { useState, type FormEvent, type ReactNode, type Dispatch, type SetStateAction } from 'react';
import { ApiFailure } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { ADDITIVE_FIELDS, EMPTY_ADDITIVE, type Checked, type ShelfField, type Typed } from './shelfForms';

interface ShelfFormProps<T> {
  readonly title: string;
  readonly start: Typed;
  readonly fields: readonly ShelfField[];
  readonly check: (typed: Typed) => Checked<T>;
  readonly onKeep: (item: T) => Promise<unknown>;
  readonly onRemove: (() => Promise<unknown>) | null;
  readonly onDone: () => void;
  readonly children?: ReactNode;
}

/** A product or a gun: entered in the painter's units, checked at the field, kept whole. */
export function ShelfForm<T>({ title, start, fields, check, onKeep, onRemove, onDone, children }: ShelfFormProps<T>) {
  const [typed, setTyped] = useState<Typed>(start);
  const [faults, setFaults] = useState<Typed>({});
  const [failure, setFailure] = useState('');
  const [busy, setBusy] = useState(false);
  const count = Number(typed['count'] ?? NaN);
  const set = (name: string, value: string) => setTyped((old) => ({ ...old, [name]: value }));

  const run = async (act: () => Promise<unknown>) => {
    setBusy(true);
    setFailure('');
    try {
      await act();
      onDone();
    } catch (error) {
      if (!(error instanceof ApiFailure)) throw error;
      setFailure(error.message);
      setFaults(
        Object.fromEntries(Object.entries(error.fields).map(([k, v]) => [k.replace(/^(product|gun)\./, ''), v])),
      );
    } finally {
      setBusy(false);
    }
  };
  const keep = (event: FormEvent) => {
    event.preventDefault();
    const checked = check(typed);
    setFaults(checked.ok ? {} : checked.faults);
    if (checked.ok) void run(() => onKeep(checked.value));
  };

  const one = (f: ShelfField, prefix = '') => {
    const name = prefix + f.name;
    const value = typed[name] ?? '';
    if (f.measure)
      return (
        <MeasureField
          key={name}
          measure={f.measure}
          label={f.label}
          value={value}
          onValue={(v) => set(name, v)}
          error={faults[name]}
          {...(f.hint ? { hint: f.hint } : {})}
        />
      );
    return (
      <Field
        key={name}
        label={f.label}
        value={value}
        onChange={(e) => set(name, e.target.value)}
        error={faults[name]}
        decimal={f.number ?? false}
        {...(f.hint ? { hint: f.hint } : {})}
        {...(f.choices ? { select: true } : {})}
      >
        {f.choices?.map((c) => (
          <option key={c} value={c}>
            {f.says?.[c] ?? c}
          </option>
        ))}
      </Field>
    );
  };

  const takeOut = (index: number) =>
    setTyped((old) => {
      const next: Record<string, string> = { ...old, count: String(count - 1) };
      for (let i = index; i < count - 1; i++)
        for (const f of ADDITIVE_FIELDS) next[`additives.${i}.${f.name}`] = old[`additives.${i + 1}.${f.name}`] ?? '';
      return next;
    });

  return (
    <Box component="form" noValidate onSubmit={keep} aria-label={title}>
      <Typography variant="h1" component="h2" sx={{ mb: 1.5 }}>
        {title}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(190px, 1fr))',
          columnGap: 2,
          rowGap: 1.25,
        }}
      >
        {fields.map((f) => one(f))}
      </Box>
      <Additives count={count} one={one} takeOut={takeOut} setTyped={setTyped} />
      {children}
      {failure ? (
        <Alert severity="error" variant="outlined" sx={{ color: 'text.primary', mt: 1.5 }}>
          {failure}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
        <Button type="submit" variant="contained" disabled={busy}>
          Keep it
        </Button>
        <Button variant="outlined" onClick={onDone}>
          Leave it
        </Button>
        {onRemove ? (
          <Button variant="text" color="error" disabled={busy} onClick={() => void run(onRemove)}>
            Remove
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}

interface AdditivesProps {
  readonly count: number;
  readonly one: (f: ShelfField, prefix: string) => ReactNode;
  readonly takeOut: (index: number) => void;
  readonly setTyped: Dispatch<SetStateAction<Readonly<Record<string, string>>>>;
}

/** Hardeners and reducers of a product, as many as are typed. */
function Additives({ count, one, takeOut, setTyped }: AdditivesProps) {
  const { tones } = useTheme();
  return Number.isNaN(count) ? null : (
    <>
      <Typography variant="h2" sx={{ mt: 2, mb: 0.5 }}>
        Hardeners and reducers, with the temperatures their sheet gives
      </Typography>
      {Array.from({ length: count }, (_, i) => (
        <Box
          key={i}
          role="group"
          aria-label={`Additive ${i + 1}`}
          sx={{
            display: 'grid',
            gridTemplateColumns: '120px minmax(194px, 2.2fr) repeat(5, minmax(66px, 1fr)) 70px',
            gap: 1,
            alignItems: 'end',
            py: 0.75,
            borderTop: `1px solid ${tones.hairline}`,
          }}
        >
          {ADDITIVE_FIELDS.map((f) => one(f, `additives.${i}.`))}
          <Button variant="text" color="inherit" onClick={() => takeOut(i)} sx={{ px: 0.5, fontSize: 14 }}>
            Take out
          </Button>
        </Box>
      ))}
      <Button
        variant="outlined"
        sx={{ mt: 1 }}
        onClick={() =>
          setTyped((old) => ({
            ...old,
            count: String(count + 1),
            ...Object.fromEntries(
              Object.entries(EMPTY_ADDITIVE).map(([k, v]) => [`additives.${count}.${k}`, v === null ? '' : String(v)]),
            ),
          }))
        }
      >
        Add a hardener or reducer
      </Button>
    </>
  );
}
