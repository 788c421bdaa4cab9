import { yupResolver } from '@hookform/resolvers/yup';
import { Alert, Box, Button, FormControlLabel, Switch, ToggleButton, Typography } from '@mui/material';
import { cardSchema, type Card, type Job, type StoredCard } from '@steady-gleam/contracts';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { Field } from '../../shared/Field';
import { sayCoats } from '../../shared/jobModel';
import { usePutCard } from '../../shared/useJob';
import { USUAL_RUNGS } from './cardModel';

const OFFERED = [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5, 6];

/** Which rungs to spray, and with what; everything as on the job. */
export function CardPlanForm({ job, card, onDone }: { job: Job; card: StoredCard | null; onDone?: () => void }) {
  const put = usePutCard(job.id);
  const [id] = useState(() => card?.id ?? crypto.randomUUID());
  const form = useForm<Card>({
    resolver: yupResolver(cardSchema) as never,
    defaultValues: card
      ? { id, rungs: card.rungs, gun: card.gun, pressureBar: card.pressureBar, onStand: card.onStand }
      : { id, rungs: [...USUAL_RUNGS[job.family]], gun: '', pressureBar: 1.4, onStand: true },
  });
  const { errors } = form.formState;
  const save = form.handleSubmit((values) =>
    put.mutate({ ...values, version: card?.version ?? 0 }, { onSuccess: () => onDone?.() }),
  );
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
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 180px', gap: 2, mt: 3 }}>
        <Field
          label="Gun and tip"
          {...form.register('gun')}
          error={errors.gun?.message}
          hint="The one you will spray the job with"
        />
        <Field
          label="Pressure at the gun, bar"
          {...form.register('pressureBar', { valueAsNumber: true })}
          error={errors.pressureBar?.message}
          decimal
        />
      </Box>
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
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary', maxWidth: '70ch' }}>
        Same sealer shade, ground coats, reducer, distance, overlap and speed as the job. Two-pack clear on the card
        holds isocyanates: air-fed respirator and exhaust, as the product’s sheet and your local rules say.
      </Typography>
      {put.error ? (
        <Alert severity="error" variant="outlined" sx={{ mt: 2, color: 'text.primary' }}>
          {put.error.message}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1.5, mt: 2.5 }}>
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
