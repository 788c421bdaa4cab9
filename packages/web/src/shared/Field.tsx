import { Box, TextField, Typography, type TextFieldProps } from '@mui/material';
import { useId } from 'react';

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
  return (
    <Box>
      <Typography component="label" htmlFor={id} variant="h3" sx={{ display: 'block', mb: 0.5 }}>
        {label}
      </Typography>
      <TextField
        {...rest}
        id={id}
        fullWidth
        error={!!error}
        helperText={error ?? hint}
        slotProps={{
          htmlInput: { autoComplete: 'off', ...(decimal ? { inputMode: 'decimal' } : {}) },
          ...(rest.select ? { select: { native: true } } : {}),
        }}
      />
    </Box>
  );
}
