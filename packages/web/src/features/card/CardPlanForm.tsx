import { yupResolver } from '@hookform/resolvers/yup';
import { Alert, Box, Button, FormControlLabel, Switch, ToggleButton, Typography } from '@mui/material';
import { type Card, cardSchema, type Job, type StoredCard } from '@steady-gleam/contracts';
import { useState } from 'react';
import { Controller, useForm, type UseFormReturn } from 'react-hook-form';
import { pickOf, sayCoats } from '../../shared/jobModel';
import { useChangeJob, usePutCard, type PageDetail } from '../../shared/useJob';
import { newId } from '../../shared/newId';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { USUAL_CUTS } from '@steady-gleam/core/letdown';
import { CardGround } from './CardGround';
import { CardSettings } from './CardSettings';

/** Four rungs around a count: two below, two above, in half coats. */
export function bracketRungs(best: number): number[] {
  const middle = Math.max(1, Math.round(best * 2) / 2);
  const step = middle >= 3 ? 1 : 0.5;
  const below = Math.max(0.5, middle - step);
  return [...new Set([Math.max(0.5, below - step), below, middle, middle + step])].sort((a, b) => a - b);
}

const OFFERED = [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5, 6];

/** A plan as it begins: the card's own, or the usual one of the family. */
function startOf(id: string, card: StoredCard | null, family: Job['family']): Card {
  if (card) {
    const { rungs, gun, gunId, pressureBar, onStand, settings } = card;
    return { id, rungs, gun, gunId, pressureBar, onStand, settings };
  }
  return {
    ...{ id, rungs: [...FAMILIES[family].rungs], gun: '', gunId: null, pressureBar: 1.4, onStand: true },
    settings: {
      ...{ sealer: '', groundCoats: '', reducer: '', temperatureC: null },
      ...{ distanceCm: null, tipMm: null, overlap: null, turns: null },
      ...{ patches: FAMILIES[family].patches, sameInstrument: true },
      ...{ eyeLittle: USUAL_CUTS.little, eyeClear: USUAL_CUTS.clear },
    },
  };
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
  const change = useChangeJob(job.id);
  const put = usePutCard(job);
  const [id] = useState(() => card?.id ?? newId());
  const form = useForm<Card>({
    resolver: yupResolver(cardSchema),
    defaultValues: startOf(id, card, job.family),
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
      <RungChoice form={form} />
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
      {hasTarget ? null : <CardGround groundId={groundId} change={change} job={job} detail={detail} />}
      <Typography variant="h2" sx={{ mt: 1.5, mb: 0.75 }}>
        Everything as on the job
      </Typography>
      <CardSettings form={form} errors={errors} />
      {FAMILIES[job.family].patches ? (
        <Switched
          form={form}
          name="settings.patches"
          label={() => 'Black and grey contrast patches on the ground: they gauge the film'}
        />
      ) : null}
      <Switched
        form={form}
        name="onStand"
        label={(on) =>
          on ? 'Sprayed on a stand, hanging as the job hangs' : 'Sprayed in the hand: the card will be trusted less'
        }
      />
      {hasTarget ? (
        <Switched
          form={form}
          name="settings.sameInstrument"
          label={(on) =>
            on
              ? 'Card and target are read with the same instrument'
              : 'Read with two instruments: their offset and their angles count as doubt'
          }
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

interface RungChoiceProps {
  readonly form: UseFormReturn<Card>;
}

/** Counts the card is to have. */
function RungChoice({ form }: RungChoiceProps) {
  return (
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
  );
}

interface SwitchedProps {
  readonly form: UseFormReturn<Card>;
  readonly name: 'onStand' | 'settings.patches' | 'settings.sameInstrument';
  readonly label: (on: boolean) => string;
}

/** Something that is so or not, in the words for either. */
function Switched({ form, name, label }: SwitchedProps) {
  return (
    <Controller
      control={form.control}
      name={name}
      render={({ field }) => (
        <FormControlLabel
          sx={{ mt: 1, minHeight: 44 }}
          control={<Switch checked={field.value} onChange={(_, v) => field.onChange(v)} />}
          label={label(field.value)}
        />
      )}
    />
  );
}
