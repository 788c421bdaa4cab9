import { families, type NewJob } from '@steady-gleam/contracts';
import { Box, FormHelperText, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY, sayParts } from '@steady-gleam/core/materials';
import type { ReactNode } from 'react';
import { Controller, type UseFormReturn } from 'react-hook-form';
import { Link } from 'react-router';
import { capital } from '../../shared/capital';
import { useLibrary } from '../../shared/library';
import { MixStrip } from '../../shared/MixStrip';

interface LooksProps {
  readonly labelledBy: string;
  readonly value: string;
  readonly onChange: (id: string) => void;
  readonly options: readonly {
    readonly id: string;
    /** Mix whose look stands on it. */
    readonly mixId: string;
    readonly children: ReactNode;
  }[];
}

/** One of several, each under its look: four to a line. */
function LookChoice({ labelledBy, value, onChange, options }: LooksProps) {
  const { tones } = useTheme();
  return (
    <ToggleButtonGroup
      exclusive
      aria-labelledby={labelledBy}
      value={value}
      onChange={(_, id: string | null) => id && onChange(id)}
      sx={{
        ...{ display: 'grid', gridTemplateColumns: 'repeat(4, minmax(0, 1fr))', maxWidth: 860, gap: '6px' },
        '& .MuiToggleButton-root': {
          ...{ borderRadius: '2px', m: '0 !important', p: 0, overflow: 'hidden' },
          ...{ flexDirection: 'column', alignItems: 'stretch', justifyContent: 'flex-start', textAlign: 'left' },
          border: `1px solid ${tones.hairline} !important`,
        },
      }}
    >
      {options.map((o) => (
        <ToggleButton key={o.id} value={o.id}>
          <MixStrip id={o.mixId} height={30} />
          <Box sx={{ p: '7px 10px 8px' }}>{o.children}</Box>
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}

/** The finish family, and which mix of it is in the cup; each with its look. */
export function FamilyAndCup({ form, family }: { form: UseFormReturn<NewJob>; family: NewJob['family'] }) {
  const { library } = useLibrary();
  const { errors } = form.formState;
  const mixesOf = (of: NewJob['family']) => library.systems.filter((s) => s.family === of);
  return (
    <>
      <Typography variant="h2" sx={{ mt: 2.5, mb: 1 }} id="family-label">
        Finish family
      </Typography>
      <Controller
        control={form.control}
        name="family"
        render={({ field }) => (
          <LookChoice
            labelledBy="family-label"
            value={field.value}
            onChange={(id) => {
              const chosen = families.find((f) => f === id)!;
              field.onChange(chosen);
              form.setValue('mixId', mixesOf(chosen)[0]!.id);
            }}
            options={families.map((f) => ({ id: f, mixId: mixesOf(f)[0]!.id, children: FAMILIES[f].name }))}
          />
        )}
      />
      <FormHelperText>
        {capital(FAMILIES[family].what)}. Matched: {FAMILIES[family].matched}.
      </FormHelperText>
      <Typography variant="h2" sx={{ mt: 2, mb: 1 }} id="cup-label">
        In the cup
      </Typography>
      <Controller
        control={form.control}
        name="mixId"
        render={({ field }) => (
          <>
            <LookChoice
              labelledBy="cup-label"
              value={field.value}
              onChange={field.onChange}
              options={mixesOf(family).map((s) => ({
                id: s.id,
                mixId: s.id,
                children: (
                  <>
                    {s.name}
                    <Box
                      component="span"
                      sx={{ display: 'block', fontSize: 13, fontWeight: 400, fontFamily: 'body1.fontFamily' }}
                    >
                      {sayParts(s)}
                    </Box>
                  </>
                ),
              }))}
            />
            <FormHelperText error={!!errors.mixId}>
              {errors.mixId?.message ??
                (REFERENCE_LIBRARY.systems.some((s) => s.id === field.value)
                  ? 'Strips: 1 to 4 coats at 45°. Parts by volume. A demo mix, invented.'
                  : 'Strips: 1 to 4 coats at 45°. Parts by volume. A mix of your own.')}
            </FormHelperText>
          </>
        )}
      />
      <Typography sx={{ mt: 1 }}>
        A reading and no mix for it?{' '}
        <Link to="/find" style={{ color: 'inherit' }}>
          Find the mix
        </Link>{' '}
        on the shop’s own shelf.
      </Typography>
    </>
  );
}
