import { Alert, Box, Button, Typography } from '@mui/material';
import { materialsApi, ownMaterialSchema, type StoredMaterial } from '@steady-gleam/contracts';
import { LAYER_FILM_UM } from '@steady-gleam/core/finishes';
import type { OwnMaterial } from '@steady-gleam/core/materials';
import { createFilm } from '@steady-gleam/core/optics';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { ValidationError } from 'yup';
import { ApiFailure, call } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { materialsKey, useLibrary } from '../../shared/library';
import { MeasureField } from '../../ui/MeasureField';
import type { FormField, FormValues } from './formField';
import { fieldsOf, groundLook, toCandidate, type MaterialKind } from './materialForms';
import { newId } from '../../shared/newId';
import { cssOf } from '../../shared/screenColour';
import { useUnits } from '../../shared/units';
import { computeRemote } from '../../worker/useCompute';
import { mixCandidate, withRatio } from './mixForm';

interface MaterialFormProps {
  readonly kind: MaterialKind;
  readonly start: FormValues;
  /** The stored material being edited; null for a new one. */
  readonly stored: StoredMaterial | null;
  readonly onDone: () => void;
}

/** The field a path of the schema stands for: `colours[1].parts` is `colours.1.parts`, the axes of a reading are one field. */
const fieldOf = (path: string): string =>
  path
    .replace(/\[\d\]$/, '')
    .replace(/\[(\d+)\]\./g, '.$1.')
    .replace(/^colours$/, 'colours.0.id')
    .replace(/^solids$/, 'solids.0.solidId');

/** One material of the shop's own: entered, checked against its bounds, kept. */
export function MaterialForm({ kind, start, stored, onDone }: MaterialFormProps) {
  const { library } = useLibrary();
  const client = useQueryClient();
  const units = useUnits();
  const [id] = useState(() => stored?.material.id ?? newId());
  const [values, setValues] = useState<FormValues>(start);
  const [errors, setErrors] = useState<Record<string, string>>({});
  const fields = fieldsOf(kind, library, values);
  const [film] = useState(() => createFilm());
  const look = kind === 'ground' ? groundLook(film, values) : null;
  // The server tells the colours of jobs' layers: they follow from the materials.
  const refresh = () => Promise.all([materialsKey, ['jobs']].map((queryKey) => client.invalidateQueries({ queryKey })));
  const put = useMutation({
    mutationFn: (material: OwnMaterial) =>
      call(materialsApi.put, { params: { id }, body: { version: stored?.version ?? 0, material } }),
    onSuccess: async () => {
      await refresh();
      onDone();
    },
    onError: (error) =>
      error instanceof ApiFailure &&
      setErrors(
        Object.fromEntries(
          Object.entries(error.fields).map(([path, m]) => [fieldOf(path.replace(/^material\./, '')), m]),
        ),
      ),
  });
  const remove = useMutation({
    mutationFn: () => call(materialsApi.remove, { params: { id }, body: { version: stored!.version } }),
    onSuccess: async () => {
      await refresh();
      onDone();
    },
  });

  const save = async (event: FormEvent) => {
    event.preventDefault();
    let candidate = null;
    if (kind === 'system') {
      const found = await mixCandidate(id, values, library, (...given) => computeRemote().fitMix(...given));
      if (!found.ok) return setErrors(found.errors);
      candidate = found.candidate;
    }
    try {
      const material = ownMaterialSchema.validateSync(candidate ?? toCandidate(kind, id, values, fields, film), {
        abortEarly: false,
      });
      setErrors({});
      put.mutate(material);
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      const found: Record<string, string> = {};
      for (const e of error.inner.length ? error.inner : [error]) found[fieldOf(e.path ?? '')] ??= e.message;
      setErrors(found);
    }
  };

  const set = (name: string) => (e: { target: { value: string } }) =>
    setValues((old) => (name === 'ratio' ? withRatio(old, e.target.value) : { ...old, [name]: e.target.value }));
  const failure = put.error && !Object.keys(errors).length ? put.error.message : remove.error?.message;
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(e) => void save(e)}
      aria-label="Material"
      sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}
    >
      {fields
        .filter((f) => !f.when || values[f.when])
        .map((f) => (
          <MaterialField key={f.name} f={f} values={values} error={errors[f.name]} set={set} />
        ))}
      {look ? (
        <Box role="img" aria-label="The ground as it is mixed">
          <Box sx={{ height: 56, background: cssOf(look.lab) }} />
          <Typography variant="body2" sx={{ mt: 0.5 }}>
            {`L* ${look.lab[0].toFixed(0)}, a* ${look.lab[1].toFixed(0)}, b* ${look.lab[2].toFixed(0)} cleared; `}
            {look.hidesIn === null
              ? 'it never hides by itself.'
              : `hides in ${look.hidesIn.toFixed(1)} coats of ${units.say('film', LAYER_FILM_UM.ground)}.`}
          </Typography>
        </Box>
      ) : null}
      {failure ? (
        <Alert severity="error" variant="outlined" sx={{ color: 'text.primary' }}>
          {failure}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 0.5 }}>
        <Button type="submit" variant="contained" disabled={put.isPending}>
          Keep it
        </Button>
        <Button variant="outlined" onClick={onDone}>
          Leave it
        </Button>
        {stored ? (
          <Button variant="text" color="error" onClick={() => remove.mutate()} disabled={remove.isPending}>
            Remove
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}

interface MaterialFieldProps {
  readonly f: FormField;
  readonly values: FormValues;
  readonly error: string | undefined;
  readonly set: (name: string) => (e: { target: { value: string } }) => void;
}

/** One field of a material, as its kind is entered: a reading's three axes, a measure in the shop's unit, a choice, a text. */
function MaterialField({ f, values, error, set }: MaterialFieldProps) {
  if (f.type === 'lab') {
    return (
      <Box role="group" aria-label={f.label}>
        <Typography variant="h3" component="div" sx={{ mb: 0.25 }}>
          {f.label}
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1 }}>
          {['L*', 'a*', 'b*'].map((axis, i) => (
            <Field
              key={axis}
              label={axis}
              value={values[`${f.name}.${i}`] ?? ''}
              onChange={set(`${f.name}.${i}`)}
              error={error ? ' ' : undefined}
              decimal
            />
          ))}
        </Box>
        {error ? (
          <Typography variant="body2" sx={{ color: 'error.main' }}>
            {error}
          </Typography>
        ) : null}
      </Box>
    );
  }
  if (f.measure)
    return (
      <MeasureField
        measure={f.measure}
        label={f.label}
        value={values[f.name] ?? ''}
        onValue={(value) => set(f.name)({ target: { value } })}
        error={error}
      />
    );
  const choice = f.type === 'choice';
  return (
    <Field
      label={f.label}
      value={values[f.name] ?? ''}
      onChange={set(f.name)}
      error={error}
      decimal={f.type === 'number'}
      select={choice}
    >
      {choice
        ? f.choices!.map((c) => (
            <option key={c.value} value={c.value}>
              {c.name}
            </option>
          ))
        : null}
    </Field>
  );
}
