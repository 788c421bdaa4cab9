import { Box, Typography } from '@mui/material';
import { useId } from 'react';
import { useUnits } from '../shared/units';
import { Input, type InputProps } from './Input';

interface FieldProps extends InputProps {
  readonly label: string;
  /** Sentence at the field when something is wrong. */
  readonly error?: string | undefined;
  readonly hint?: string | undefined;
  readonly decimal?: boolean;
}

/** A field with its label above it, where it stays readable while typing, and what is wrong with it below. */
export function Field({ label, error, hint, decimal = false, ...rest }: FieldProps) {
  const id = useId();
  // Metric figures in what is said at a field are told in the painter's units.
  const { sentence } = useUnits();
  const said = sentence(error ?? hint ?? '');
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography component="label" htmlFor={id} variant="h3" sx={{ display: 'block', mb: 0.5 }}>
        {sentence(label)}
      </Typography>
      <Input
        {...(decimal ? { inputMode: 'decimal' } : {})}
        {...rest}
        id={id}
        aria-invalid={!!error}
        {...(said ? { 'aria-describedby': `${id}-said` } : {})}
      />
      {said ? <Said id={`${id}-said`} text={said} wrong={!!error} /> : null}
    </Box>
  );
}

/** What is said below a field. */
export function Said({ id, text, wrong }: { id: string; text: string; wrong: boolean }) {
  return (
    <Typography
      id={id}
      sx={{ fontSize: 14, lineHeight: 1.3, mt: 0.375, color: wrong ? 'error.main' : 'text.secondary' }}
    >
      {text}
    </Typography>
  );
}
