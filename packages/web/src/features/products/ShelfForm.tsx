import { Alert, Box, Button, Typography, useTheme } from '@mui/material';
import { useFieldArray, type Path } from 'react-hook-form';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import type { Checked } from '../../shared/checkWith';
import { useTypedForm, type TypedForm } from '../../ui/useTypedForm';
import {
  ADDITIVE_FIELDS,
  additiveToTyped,
  EMPTY_ADDITIVE,
  shelfField,
  type ShelfField,
  type TypedShelf,
} from './shelfForms';

interface ShelfFormProps<T> {
  readonly title: string;
  readonly start: TypedShelf;
  readonly fields: readonly ShelfField[];
  /** It is mixed of further parts: hardeners and reducers are asked for. */
  readonly isMixed: boolean;
  readonly check: (typed: TypedShelf) => Checked<T>;
  readonly onKeep: (item: T) => Promise<unknown>;
  readonly onRemove: (() => Promise<unknown>) | null;
  readonly onDone: () => void;
}

/** A product or a gun: entered in the painter's units, checked at the field, kept whole. */
export function ShelfForm<T>(props: ShelfFormProps<T>) {
  const { title, start, fields, isMixed, check, onKeep, onRemove, onDone } = props;
  const form = useTypedForm({
    start,
    check,
    keep: async (item) => {
      await onKeep(item);
      onDone();
    },
    fieldOf: shelfField,
  });
  return (
    <Box component="form" noValidate onSubmit={form.onSubmit} aria-label={title}>
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
        {fields.map((f) => (
          <OneField key={f.name} form={form} field={f} name={`item.${f.name}`} />
        ))}
      </Box>
      {isMixed ? <Additives form={form} /> : null}
      {form.failure ? (
        <Alert severity="error" variant="outlined" sx={{ color: 'text.primary', mt: 1.5 }}>
          {form.failure}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, mt: 2 }}>
        <Button type="submit" variant="contained" disabled={form.busy}>
          Keep it
        </Button>
        <Button variant="outlined" onClick={onDone}>
          Leave it
        </Button>
        {onRemove ? (
          <Button
            variant="text"
            color="error"
            disabled={form.busy}
            onClick={() => void form.run(() => onRemove().then(onDone))}
          >
            Remove
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}

interface OneFieldProps {
  readonly form: Pick<TypedForm<TypedShelf>, 'text' | 'measure'>;
  readonly field: ShelfField;
  readonly name: Path<TypedShelf>;
}

/** A figure in the painter's unit, a choice or a text. */
function OneField({ form, field: f, name }: OneFieldProps) {
  const hint = f.hint ? { hint: f.hint } : {};
  if (f.measure) return <MeasureField measure={f.measure} label={f.label} {...form.measure(name)} {...hint} />;
  return (
    <Field
      label={f.label}
      {...form.text(name)}
      decimal={f.number ?? false}
      {...hint}
      {...(f.choices ? { select: true } : {})}
    >
      {f.choices?.map((c) => (
        <option key={c} value={c}>
          {f.says?.[c] ?? c}
        </option>
      ))}
    </Field>
  );
}

/** Hardeners and reducers of a product, as many as are typed. */
function Additives<T>({ form }: { form: TypedForm<TypedShelf, T> }) {
  const { tones } = useTheme();
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'additives' });
  return (
    <>
      <Typography variant="h2" sx={{ mt: 2, mb: 0.5 }}>
        Hardeners and reducers, with the temperatures their sheet gives
      </Typography>
      {fields.map(({ id }, i) => (
        <Box
          key={id}
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
          {ADDITIVE_FIELDS.map((f) => (
            <OneField key={f.name} form={form} field={f} name={`additives.${i}.${f.name}`} />
          ))}
          <Button variant="text" color="inherit" onClick={() => remove(i)} sx={{ px: 0.5, fontSize: 14 }}>
            Take out
          </Button>
        </Box>
      ))}
      <Button variant="outlined" sx={{ mt: 1 }} onClick={() => append(additiveToTyped(EMPTY_ADDITIVE))}>
        Add a hardener or reducer
      </Button>
    </>
  );
}
