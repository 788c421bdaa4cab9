import { Box, TextField, Typography, type TextFieldProps } from '@mui/material';
import { useId } from 'react';
import { useUnits } from './units';

type FieldProps = Omit<TextFieldProps, 'label' | 'error' | 'helperText'> & {
  readonly label: string;
  /** Sentence at the field when something is wrong. */
  readonly error?: string | undefined;
  readonly hint?: string;
  readonly decimal?: boolean;
};

/** A text field with its label above it, where it stays readable while typing. */
export function Field({ label, error, hint, decimal = false, ...rest }: FieldProps) {
  const id = useId();
  // Metric figures in what is said at a field are told in the painter's units.
  const { sentence } = useUnits();
  return (
    <Box>
      <Typography component="label" htmlFor={id} variant="h3" sx={{ display: 'block', mb: 0.5 }}>
        {sentence(label)}
      </Typography>
      <TextField
        {...rest}
        id={id}
        fullWidth
        error={!!error}
        helperText={sentence(error ?? hint ?? '')}
        slotProps={{
          htmlInput: { autoComplete: rest.autoComplete ?? 'off', ...(decimal ? { inputMode: 'decimal' } : {}) },
          ...(rest.select ? { select: { native: true } } : {}),
        }}
      />
    </Box>
  );
}
