import { Alert, Box, Button, Typography } from '@mui/material';
import { materialsApi, ownMaterialSchema, type StoredMaterial } from '@steady-gleam/contracts';
import { LAYER_FILM_UM } from '@steady-gleam/core/finishes';
import type { OwnMaterial } from '@steady-gleam/core/materials';
import { createFilm } from '@steady-gleam/core/optics';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { materialsKey, useLibrary } from '../../shared/library';
import { MeasureField } from '../../ui/MeasureField';
import { checkWith, type Checked } from '../../shared/checkWith';
import { useTypedForm, type TypedForm } from '../../ui/useTypedForm';
import type { FormField, FormValues } from './formField';
import { fieldsOf, groundLook, toCandidate, type MaterialKind } from './materialForms';
import { newId } from '../../shared/newId';
import { cssOf } from '../../shared/screenColour';
import { useUnits } from '../../shared/units';
import { computeRemote } from '../../worker/useCompute';
import { mixCandidate, withRatio } from './mixForm';
import { sayLab } from '../../shared/sayLab';

interface MaterialFormProps {
  readonly kind: MaterialKind;
  readonly start: FormValues;
  /** The stored material being edited; null for a new one. */
  readonly stored: StoredMaterial | null;
  readonly onDone: () => void;
}

/** The field a path of the schema stands for: `colours[1].parts` is `colours/1/parts`, the axes of a reading are one field. */
const fieldOf = (path: string): string =>
  path
    .replace(/^material\./, '')
    .replace(/\[\d\]$/, '')
    .replace(/\[(\d+)\]\./g, '.$1.')
    .replaceAll('.', '/')
    .replace(/^colours$/, 'colours/0/id')
    .replace(/^solids$/, 'solids/0/solidId');

/** One material of the shop's own: entered, checked against its bounds, kept. */
export function MaterialForm({ kind, start, stored, onDone }: MaterialFormProps) {
  const { library } = useLibrary();
  const client = useQueryClient();
  const units = useUnits();
  const [id] = useState(() => stored?.material.id ?? newId());
  const [film] = useState(() => createFilm());
  // The server tells the colours of jobs' layers: they follow from the materials.
  const done = async () => {
    await Promise.all([materialsKey, ['jobs']].map((queryKey) => client.invalidateQueries({ queryKey })));
    onDone();
  };
  const check = async (typed: FormValues): Promise<Checked<OwnMaterial>> => {
    if (kind !== 'system')
      return checkWith(ownMaterialSchema, toCandidate(kind, id, typed, fieldsOf(kind, library, typed), film), fieldOf);
    const found = await mixCandidate(id, typed, library, (...given) => computeRemote().fitMix(...given));
    return found.ok ? checkWith(ownMaterialSchema, found.value, fieldOf) : found;
  };
  const form = useTypedForm<FormValues, OwnMaterial>({
    start,
    check,
    keep: async (material) => {
      await call(materialsApi.put, { params: { id }, body: { version: stored?.version ?? 0, material } });
      await done();
    },
    fieldOf,
  });
  const remove = async () => {
    await call(materialsApi.remove, { params: { id }, body: { version: stored!.version } });
    await done();
  };
  const { values } = form;
  const look = kind === 'ground' ? groundLook(film, values) : null;
  return (
    <Box
      component="form"
      noValidate
      onSubmit={form.onSubmit}
      aria-label="Material"
      sx={{ display: 'flex', flexDirection: 'column', gap: 1.25 }}
    >
      {fieldsOf(kind, library, values)
        .filter((f) => !f.when || values[f.when])
        .map((f) => (
          <MaterialField key={f.name} f={f} form={form} />
        ))}
      {look ? (
        <Box role="img" aria-label="The ground as it is mixed">
          <Box sx={{ height: 56, background: cssOf(look.lab) }} />
          <Typography variant="body2" sx={{ mt: 0.5 }}>
            {`${sayLab(look.lab)} cleared; `}
            {look.hidesIn === null
              ? 'it never hides by itself.'
              : `hides in ${look.hidesIn.toFixed(1)} coats of ${units.say('film', LAYER_FILM_UM.ground)}.`}
          </Typography>
        </Box>
      ) : null}
      {form.failure ? (
        <Alert severity="error" variant="outlined" sx={{ color: 'text.primary' }}>
          {form.failure}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 0.5 }}>
        <Button type="submit" variant="contained" disabled={form.busy}>
          Keep it
        </Button>
        <Button variant="outlined" onClick={onDone}>
          Leave it
        </Button>
        {stored ? (
          <Button variant="text" color="error" onClick={() => void form.run(remove)} disabled={form.busy}>
            Remove
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}

interface MaterialFieldProps {
  readonly f: FormField;
  readonly form: Pick<TypedForm<FormValues>, 'text' | 'measure' | 'fault' | 'values' | 'setAll'>;
}

/** One field of a material, as its kind is entered: a reading's three axes, a measure in the shop's unit, a choice, a text. */
function MaterialField({ f, form }: MaterialFieldProps) {
  const error = form.fault(f.name);
  if (f.type === 'lab') {
    return (
      <Box role="group" aria-label={f.label}>
        <Typography variant="h3" component="div" sx={{ mb: 0.25 }}>
          {f.label}
        </Typography>
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1 }}>
          {['L*', 'a*', 'b*'].map((axis, i) => (
            <Field key={axis} label={axis} {...form.text(`${f.name}/${i}`)} error={error ? ' ' : undefined} decimal />
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
  if (f.measure) return <MeasureField measure={f.measure} label={f.label} {...form.measure(f.name)} />;
  const choice = f.type === 'choice';
  // Parts written in one line go to the fields of the parts.
  const line =
    f.name === 'ratio'
      ? { onChange: (e: { target: { value: string } }) => form.setAll(withRatio(form.values, e.target.value)) }
      : {};
  return (
    <Field label={f.label} {...form.text(f.name)} {...line} decimal={f.type === 'number'} select={choice}>
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
