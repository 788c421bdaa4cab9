import { yupResolver } from '@hookform/resolvers/yup';
import {
  Alert,
  Box,
  Button,
  FormControlLabel,
  Switch,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material';
import { type Card, cardSchema, type StoredCard } from '@steady-gleam/contracts';
import type { Measure } from '@steady-gleam/core/units';
import { useState } from 'react';
import { Controller, useForm, useWatch, type UseFormReturn } from 'react-hook-form';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { useLibrary } from '../../shared/library';
import { pickOf, sayCoats } from '../../shared/jobModel';
import { useChangeJob, usePutCard, type PageDetail } from '../../shared/useJob';
import { newId } from '../../shared/newId';
import { useGuns } from '../../shared/useShop';
import { numberIn } from '../../shared/numberIn';
import { FAMILIES, STYLES, type StyleId } from '@steady-gleam/core/finishes';
import { USUAL_CUTS } from '@steady-gleam/core/letdown';

/** An empty field is nothing; anything else that is no number is left for the schema to name. */
/** The form's figures. */
type Figure =
  | 'pressureBar'
  | `settings.${'distanceCm' | 'temperatureC' | 'tipMm' | 'overlap' | 'turns' | 'eyeLittle' | 'eyeClear'}`;
/** What is typed into a figure stays in it as it is until the form is kept: its schema says then what is no number. */
const setFigure = (form: UseFormReturn<Card>, name: Figure, value: number | null) =>
  form.setValue(name, value as never);

const numberOrNull = (v: unknown): number | null =>
  v === null || v === undefined || String(v).trim() === '' ? null : numberIn(String(v));

/** Four rungs around a count: two below, two above, in half coats. */
export function bracketRungs(best: number): number[] {
  const middle = Math.max(1, Math.round(best * 2) / 2);
  const step = middle >= 3 ? 1 : 0.5;
  const below = Math.max(0.5, middle - step);
  return [...new Set([Math.max(0.5, below - step), below, middle, middle + step])].sort((a, b) => a - b);
}

/** Ways an effect coat is laid on a card. */
const LAID: readonly StyleId[] = ['wet', 'medium', 'light'];

const OFFERED = [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5, 6];

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

/** Which rungs to spray, and with what; everything as on the job. */
export function CardPlanForm({
  detail,
  card,
  bracket,
  hasTarget,
  onDone,
}: {
  detail: PageDetail;
  card: StoredCard | null;
  /** Count the model expects, so that the rungs can go past it on both sides; null when it expects nothing. */
  bracket: number | null;
  /** The target was read: ground and style were picked on the map. Else they are asked for here. */
  hasTarget: boolean;
  onDone?: () => void;
}) {
  const { job } = detail;
  const { library } = useLibrary();
  const change = useChangeJob(job.id);
  const put = usePutCard(job);
  const [id] = useState(() => card?.id ?? newId());
  const form = useForm<Card>({
    resolver: yupResolver(cardSchema),
    defaultValues: card
      ? {
          id,
          rungs: card.rungs,
          gun: card.gun,
          gunId: card.gunId,
          pressureBar: card.pressureBar,
          onStand: card.onStand,
          settings: card.settings,
        }
      : {
          id,
          rungs: [...FAMILIES[job.family].rungs],
          gun: '',
          gunId: null,
          pressureBar: 1.4,
          onStand: true,
          settings: {
            sealer: '',
            groundCoats: '',
            reducer: '',
            ...{ distanceCm: null, tipMm: null, overlap: null, turns: null },
            temperatureC: null,
            patches: FAMILIES[job.family].patches,
            sameInstrument: true,
            ...{ eyeLittle: USUAL_CUTS.little, eyeClear: USUAL_CUTS.clear },
          },
        },
  });
  const { errors } = form.formState;
  const groundId = pickOf(job).groundId;
  const save = form.handleSubmit(async (values) => {
    // By eye nothing was picked on a map: the ground chosen here becomes the pick.
    try {
      if (!job.pick) await change.mutateAsync({ version: job.version, finishId: detail.about, pick: pickOf(job) });
    } catch {
      // Said below; nothing of the card was kept yet, so it can be pressed again.
      return;
    }
    put.mutate({ ...values, version: card?.version ?? 0 }, { onSuccess: () => onDone?.() });
  });
  return (
    <Box component="form" noValidate onSubmit={(e) => void save(e)} aria-label="Card plan" sx={{ maxWidth: 720 }}>
      <Typography variant="h2" sx={{ mb: 1 }} id="rungs-label">
        Rungs, in coats
      </Typography>
      <Controller
        control={form.control}
        name="rungs"
        render={({ field }) => (
          <Box role="group" aria-labelledby="rungs-label" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
            {OFFERED.map((n) => (
              <ToggleButton
                key={n}
                value={n}
                selected={field.value.includes(n)}
                onChange={() =>
                  field.onChange(
                    (field.value.includes(n) ? field.value.filter((v) => v !== n) : [...field.value, n]).sort(
                      (a, b) => a - b,
                    ),
                  )
                }
              >
                {sayCoats(n)}
              </ToggleButton>
            ))}
          </Box>
        )}
      />
      <Typography variant="body2" sx={{ mt: 0.75, color: errors.rungs ? 'error.main' : 'text.secondary' }}>
        {errors.rungs?.message ??
          (errors.rungs as { root?: { message?: string } } | undefined)?.root?.message ??
          'One card stepped, or one card a rung. The rungs should go past the answer on both sides.'}
      </Typography>
      {bracket === null ? null : (
        <Button
          variant="text"
          color="inherit"
          sx={{ px: 0.5, textDecoration: 'underline' }}
          onClick={() => form.setValue('rungs', bracketRungs(bracket), { shouldValidate: true })}
        >
          Let the model choose: around {bracket.toFixed(1)}
        </Button>
      )}
      {hasTarget ? null : (
        <Box sx={{ mt: 2, maxWidth: 380 }}>
          <Field
            label="Ground on the card"
            value={groundId}
            select
            onChange={(e) =>
              change.mutate({
                version: job.version,
                finishId: detail.about,
                pick: { ...pickOf(job), groundId: e.target.value },
              })
            }
          >
            {library.grounds.map((g) => (
              <option key={g.id} value={g.id}>
                {g.name}
              </option>
            ))}
          </Field>
          <Typography variant="h3" component="div" sx={{ mt: 1.5, mb: 0.5 }} id="laid-label">
            Effect coats are laid
          </Typography>
          <ToggleButtonGroup
            exclusive
            value={pickOf(job).style}
            aria-labelledby="laid-label"
            onChange={(_, style: StyleId | null) =>
              style && change.mutate({ version: job.version, finishId: detail.about, pick: { ...pickOf(job), style } })
            }
          >
            {LAID.map((s) => (
              <ToggleButton key={s} value={s}>
                {STYLES[s].name}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Typography variant="body2" sx={{ mt: 0.5, color: 'text.secondary' }}>
            Wet and light coats lay flakes and film differently: card and job are laid alike.
          </Typography>
        </Box>
      )}
      <Typography variant="h2" sx={{ mt: 1.5, mb: 0.75 }}>
        Everything as on the job
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', columnGap: 2, rowGap: 1.25 }}>
        <GunField form={form} error={errors.gun?.message} />
        <Measured
          form={form}
          name="pressureBar"
          measure="pressure"
          label="Pressure at the gun"
          error={errors.pressureBar?.message}
        />
        <Field
          label="Sealer, its shade"
          {...form.register('settings.sealer')}
          error={errors.settings?.sealer?.message}
        />
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
        <Plain
          form={form}
          name="settings.overlap"
          percent
          label="Overlap, %"
          error={errors.settings?.overlap?.message}
        />
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
      {FAMILIES[job.family].patches ? (
        <Controller
          control={form.control}
          name="settings.patches"
          render={({ field }) => (
            <FormControlLabel
              sx={{ mt: 1, minHeight: 44 }}
              control={<Switch checked={field.value} onChange={(_, v) => field.onChange(v)} />}
              label="Black and grey contrast patches on the ground: they gauge the film"
            />
          )}
        />
      ) : null}
      <Controller
        control={form.control}
        name="onStand"
        render={({ field }) => (
          <FormControlLabel
            sx={{ mt: 1, minHeight: 44 }}
            control={<Switch checked={field.value} onChange={(_, v) => field.onChange(v)} />}
            label={
              field.value
                ? 'Sprayed on a stand, hanging as the job hangs'
                : 'Sprayed in the hand: the card will be trusted less'
            }
          />
        )}
      />
      {hasTarget ? (
        <Controller
          control={form.control}
          name="settings.sameInstrument"
          render={({ field }) => (
            <FormControlLabel
              sx={{ mt: 1, minHeight: 44 }}
              control={<Switch checked={field.value} onChange={(_, v) => field.onChange(v)} />}
              label={
                field.value
                  ? 'Card and target are read with the same instrument'
                  : 'Read with two instruments: their offset and their angles count as doubt'
              }
            />
          )}
        />
      ) : null}
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary', maxWidth: '70ch' }}>
        Same sealer shade, ground coats, reducer, distance, overlap and speed as the job. Two-pack clear on the card
        holds isocyanates: air-fed respirator and exhaust, as the product’s sheet and your local rules say.
      </Typography>
      {(put.error ?? change.error) ? (
        <Alert severity="error" variant="outlined" sx={{ mt: 2, color: 'text.primary' }}>
          {(put.error ?? change.error)!.message}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1.5, mt: 1.5 }}>
        <Button type="submit" variant="contained" disabled={put.isPending}>
          Keep this plan
        </Button>
        {onDone ? (
          <Button variant="outlined" onClick={onDone}>
            Leave it
          </Button>
        ) : null}
      </Box>
    </Box>
  );
}
