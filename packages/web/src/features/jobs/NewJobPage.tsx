import {
  type FinishDetail,
  type FinishQuery,
  jobsApi,
  type NewJob,
  newJobSchema,
  type FinishSummary,
} from '@steady-gleam/contracts';
import { yupResolver } from '@hookform/resolvers/yup';
import { Alert, Box, Button } from '@mui/material';
import { FAMILY_IDS } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY } from '@steady-gleam/core/materials';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Controller, useForm, useWatch, type UseFormReturn } from 'react-hook-form';
import { Link, useLocation, useNavigate, useSearchParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { ApiFailure, call } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { isCount, startOf, type JobStart } from '../../shared/newJobLink';
import { useFinish, useFinishPages } from '../../shared/useFinishes';
import { newId } from '../../shared/newId';
import { FamilyAndCup } from './FamilyAndCup';

/** Finishes offered here: the latest changed. */
const LATEST: Omit<FinishQuery, 'page'> = { words: '', family: null, ids: [], proven: false, sort: 'latest' };

/** With what of a finish of the bank a job is begun. */
const sayUsed = (coats: number | null, isRead: boolean): string =>
  coats === null && !isRead
    ? 'With its target, its card and its pick.'
    : `With its card${coats === null ? ' and its pick' : `, at ${Number(coats.toFixed(1))} coats of it`}${isRead ? '; what you read is the target' : ''}.`;

/** A new job: the piece, what it has to match, the family and what is in the cup. */
export function NewJobPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [id] = useState(newId);
  const [params] = useSearchParams();
  const given = params.get('finish');
  const form = useForm<NewJob>({
    resolver: yupResolver(newJobSchema),
    defaultValues: {
      ...{ id, piece: '', matching: '', family: FAMILY_IDS[0]!, mixId: REFERENCE_LIBRARY.systems[0]!.id },
      finishId: given,
      coats: null,
      target: null,
    },
  });
  const family = useWatch({ control: form.control, name: 'family' });
  const finishId = useWatch({ control: form.control, name: 'finishId' });
  // The latest of the bank can be chosen here; any other is begun with from the bank itself.
  const bank = useFinishPages(LATEST).first?.rows ?? [];
  const { data: own } = useFinish(finishId);
  const used = finishId ? (own?.finish ?? null) : null;
  const start = startOf(useLocation().state);
  const asked = params.get('coats') === null ? null : Number(params.get('coats'));
  const coats = isCount(asked) ? asked : null;
  const isGiven = used !== null && used.id === given;
  /** What a finish that is there already says of itself counts; the fields it fills are not asked again. */
  const submit = (v: NewJob) =>
    create.mutate(
      used
        ? {
            ...v,
            ...{ matching: used.matching || used.name, family: used.family!, mixId: used.mixId! },
            ...(isGiven ? { coats, target: start.target } : {}),
          }
        : { ...v, finishId: null },
    );
  const create = useMutation({
    mutationFn: (body: NewJob) => call(jobsApi.create, { body }),
    onSuccess: async (job) => {
      await client.invalidateQueries({ queryKey: ['jobs'] });
      const first = params.has('design') ? 'map?design=1' : 'target';
      await navigate(`/jobs/${job.id}/${job.pick ? 'plan' : first}`);
    },
    onError: (error) => {
      if (error instanceof ApiFailure) {
        for (const [path, message] of Object.entries(error.fields)) form.setError(path as keyof NewJob, { message });
      }
    },
  });
  const { errors } = form.formState;
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(e) => {
        if (used) form.setValue('matching', used.matching || used.name);
        void form.handleSubmit(submit)(e);
      }}
      sx={{ p: '18px 28px 28px', maxWidth: 860 }}
    >
      <Answer
        why={
          used?.pick
            ? 'Its plan is ready then; where this piece differs from what was matched, read it and look again.'
            : params.has('design')
              ? 'Then you go over grounds and coats until the look is the one you want; a let-down card proves it.'
              : 'Then you read the target; the match map and the let-down card follow from it.'
        }
      >
        {used
          ? `What are you finishing with ${used.name}?`
          : params.has('design')
            ? 'What are you finishing, and with what family of finish?'
            : 'What are you finishing, and what must it match?'}
      </Answer>
      <Box sx={{ display: 'grid', gap: 2.5, gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(3, minmax(0, 1fr))' } }}>
        <Field
          label="Piece"
          {...form.register('piece')}
          error={errors.piece?.message}
          hint="For instance: dodgem shell 7"
          autoFocus
        />
        {used ? null : (
          <Field
            label="Has to match"
            {...form.register('matching')}
            error={errors.matching?.message}
            hint="For instance: shell 4, left side. Empty: a look you design"
          />
        )}
        <FinishChoice form={form} used={used} isGiven={isGiven} coats={coats} start={start} bank={bank} />
      </Box>
      {used ? null : <FamilyAndCup form={form} family={family} />}
      {create.error ? (
        <Alert severity="error" variant="outlined" sx={{ mt: 2, color: 'text.primary' }}>
          {create.error.message}
        </Alert>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1.5, mt: 2.5 }}>
        <Button type="submit" variant="contained" disabled={create.isPending}>
          Start this job
        </Button>
        <Button component={Link} to="/" variant="outlined">
          Leave it
        </Button>
      </Box>
    </Box>
  );
}

interface FinishChoiceProps {
  readonly form: UseFormReturn<NewJob>;
  /** The finish that is chosen. */
  readonly used: FinishDetail['finish'] | null;
  readonly isGiven: boolean;
  readonly coats: number | null;
  readonly start: JobStart;
  readonly bank: FinishSummary[];
}

/** A finish that is there already, or one to be made. */
function FinishChoice({ form, used, isGiven, coats, start, bank }: FinishChoiceProps) {
  return (
    <Controller
      control={form.control}
      name="finishId"
      render={({ field }) => (
        <Field
          label="Finish"
          select
          value={used ? used.id : ''}
          onChange={(e) => field.onChange(e.target.value || null)}
          hint={
            used
              ? sayUsed(isGiven ? coats : null, isGiven && start.target !== null)
              : 'Or one of the bank, as it was proven.'
          }
        >
          <option value="">A new one</option>
          {[...(used && !bank.some((f) => f.id === used.id) ? [used] : []), ...bank]
            .filter((f) => f.mixId !== null && f.family !== null)
            .map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
                {f.codes.length ? `, ${f.codes.join(', ')}` : ''}
              </option>
            ))}
        </Field>
      )}
    />
  );
}
