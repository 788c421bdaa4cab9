import type { Card } from '@steady-gleam/contracts';
import type { Measure } from '@steady-gleam/core/units';
import { useState } from 'react';
import { useWatch, type FieldErrors, type UseFormReturn } from 'react-hook-form';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useGuns } from '../../shared/useShop';
import { Box } from '@mui/material';
import { Field } from '../../ui/Field';

/** The form's figures. */
type Figure =
  | 'pressureBar'
  | `settings.${'distanceCm' | 'temperatureC' | 'tipMm' | 'overlap' | 'turns' | 'eyeLittle' | 'eyeClear'}`;
/** What is typed into a figure stays in it as it is until the form is kept: its schema says then what is no number. */
const setFigure = (form: UseFormReturn<Card>, name: Figure, value: number | null) => form.setValue(name, value);

/** An empty field is nothing; anything else that is no number is left for the schema to name. */
const numberOrNull = (typed: string): number | null => (typed.trim() === '' ? null : numberIn(typed));

/** A figure of the plan, typed in the painter's units; what is no number reaches the check as it is. */
function Measured({
  form,
  name,
  ...rest
}: {
  form: UseFormReturn<Card>;
  name: 'pressureBar' | 'settings.distanceCm' | 'settings.temperatureC';
  measure: Measure;
  label: string;
  error: string | undefined;
}) {
  const start = form.getValues(name);
  const [text, setText] = useState(start === null || start === undefined ? '' : String(start));
  return (
    <MeasureField
      {...rest}
      value={text}
      onValue={(metric) => {
        setText(metric);
        setFigure(form, name, numberOrNull(metric));
      }}
    />
  );
}

const OTHER_GUN = 'other';

/** The gun of the card: one of the shop's, so that its hand is found again, or another by what is written on it. */
function GunField({ form, error }: { form: UseFormReturn<Card>; error: string | undefined }) {
  const { data: guns = [] } = useGuns();
  const [start] = useState(() => form.getValues());
  const [isOther, setOther] = useState(start.gunId === null && start.gun !== '');
  const gunId = useWatch({ control: form.control, name: 'gunId' });
  const choose = (value: string) => {
    const gun = guns.find((g) => g.gun.id === value)?.gun ?? null;
    setOther(value === OTHER_GUN);
    form.setValue('gunId', gun?.id ?? null);
    form.setValue('gun', gun?.name ?? '', { shouldValidate: gun !== null });
  };
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Field
        label="Gun"
        select
        value={isOther ? OTHER_GUN : (gunId ?? '')}
        error={isOther ? undefined : error}
        onChange={(e) => choose(e.target.value)}
      >
        <option value="">Choose it</option>
        {guns.map(({ gun }) => (
          <option key={gun.id} value={gun.id}>
            {gun.name}
          </option>
        ))}
        <option value={OTHER_GUN}>Another gun</option>
      </Field>
      {isOther ? <Field label="Gun and tip" {...form.register('gun')} error={error} /> : null}
    </Box>
  );
}

/** A figure that may be left empty, without units of its own. */
function Plain({
  form,
  name,
  label,
  error,
  percent = false,
}: {
  form: UseFormReturn<Card>;
  name: 'settings.tipMm' | 'settings.overlap' | 'settings.turns' | 'settings.eyeLittle' | 'settings.eyeClear';
  label: string;
  error: string | undefined;
  /** Shown in per cent, kept as a fraction. */
  percent?: boolean;
}) {
  const kept = form.getValues(name);
  const [text, setText] = useState(kept === null ? '' : String(Number((percent ? kept * 100 : kept).toFixed(2))));
  return (
    <Field
      label={label}
      value={text}
      error={error}
      onChange={(e) => {
        setText(e.target.value);
        const figure = numberOrNull(e.target.value);
        setFigure(form, name, percent && typeof figure === 'number' ? figure / 100 : figure);
      }}
    />
  );
}

interface CardSettingsProps {
  readonly form: UseFormReturn<Card>;
  readonly errors: FieldErrors<Card>;
}

/** How the card is sprayed. */
export function CardSettings({ form, errors }: CardSettingsProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', columnGap: 2, rowGap: 1.25 }}>
      <GunField form={form} error={errors.gun?.message} />
      <Measured
        form={form}
        name="pressureBar"
        measure="pressure"
        label="Pressure at the gun"
        error={errors.pressureBar?.message}
      />
      <Field label="Sealer, its shade" {...form.register('settings.sealer')} error={errors.settings?.sealer?.message} />
      <Field
        label="Ground coats"
        {...form.register('settings.groundCoats')}
        error={errors.settings?.groundCoats?.message}
      />
      <Field label="Reducer" {...form.register('settings.reducer')} error={errors.settings?.reducer?.message} />
      <Measured
        form={form}
        name="settings.distanceCm"
        measure="distance"
        label="Distance"
        error={errors.settings?.distanceCm?.message}
      />
      <Plain form={form} name="settings.tipMm" label="Tip, mm" error={errors.settings?.tipMm?.message} />
      <Plain form={form} name="settings.overlap" percent label="Overlap, %" error={errors.settings?.overlap?.message} />
      <Plain form={form} name="settings.turns" label="Turns of the needle" error={errors.settings?.turns?.message} />
      <Measured
        form={form}
        name="settings.temperatureC"
        measure="temperature"
        label="Temperature"
        error={errors.settings?.temperatureC?.message}
      />
      <Plain
        form={form}
        name="settings.eyeLittle"
        label="Your eye: a little, from dE00"
        error={errors.settings?.eyeLittle?.message}
      />
      <Plain
        form={form}
        name="settings.eyeClear"
        label="Your eye: clearly, from dE00"
        error={errors.settings?.eyeClear?.message}
      />
    </Box>
  );
}
