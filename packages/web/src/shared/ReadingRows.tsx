import CloseIcon from '@mui/icons-material/Close';
import { Box, IconButton, Typography } from '@mui/material';
import { Said } from '../ui/Field';
import { Input } from '../ui/Input';
import { useId } from 'react';
import type { FieldArrayWithId, UseFormReturn } from 'react-hook-form';
import { FIGURES } from '../app/theme';
import type { Row } from './typedReadings';

/** The table that readings are typed into, angle by angle. */
export function ReadingRows({
  form,
  fields,
  onRemove,
  narrow,
}: {
  form: UseFormReturn<{ rows: Row[] }>;
  fields: readonly FieldArrayWithId<{ rows: Row[] }, 'rows'>[];
  onRemove: (index: number) => void;
  narrow: boolean;
}) {
  const id = useId();
  const cell = (index: number, name: keyof Row, label: string) => {
    const error = form.formState.errors.rows?.[index]?.[name]?.message;
    return (
      <Box sx={{ minWidth: 0 }}>
        <Input
          {...form.register(`rows.${index}.${name}`)}
          aria-label={`${label} at row ${index + 1}`}
          aria-invalid={!!error}
          {...(error ? { 'aria-describedby': `${id}-${index}-${name}` } : {})}
          inputMode="decimal"
          style={{
            ...{ fontFamily: FIGURES, textAlign: 'right' },
            ...(narrow ? { paddingInline: 4, fontSize: 14 } : {}),
          }}
        />
        {error ? <Said id={`${id}-${index}-${name}`} text={error} wrong /> : null}
      </Box>
    );
  };

  const several = new Set(fields.map((f) => f.spot)).size > 1;
  const columns = narrow ? '38px repeat(3, minmax(0, 1fr)) 26px' : '92px repeat(3, minmax(90px, 130px)) 44px';
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: columns,
          columnGap: narrow ? 0.5 : 1.25,
          rowGap: 0.75,
          alignItems: 'start',
        }}
      >
        {['angle', 'L*', 'a*', 'b*', ''].map((h) => (
          <Typography key={h} variant="body2" sx={{ fontFamily: FIGURES, textAlign: 'right', pr: narrow ? 0.5 : 1.75 }}>
            {h}
          </Typography>
        ))}
        {fields.map((field, i) => (
          <Box key={field.id} sx={{ display: 'contents' }}>
            {several && field.spot !== fields[i - 1]?.spot ? (
              <Typography variant="h3" component="div" sx={{ gridColumn: '1 / -1', mt: i ? 1 : 0 }}>
                spot {field.spot}
              </Typography>
            ) : null}
            {cell(i, 'angle', 'Angle')}
            {cell(i, 'l', 'L*')}
            {cell(i, 'a', 'a*')}
            {cell(i, 'b', 'b*')}
            <IconButton
              aria-label={`Remove row ${i + 1}`}
              onClick={() => onRemove(i)}
              sx={{ width: narrow ? 26 : 44, height: 44, borderRadius: 0.5, p: 0 }}
            >
              <CloseIcon fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        Degrees from the mirror, lamp at 45°. D65, 10° observer. Leave an angle empty if it was not read.
      </Typography>
    </>
  );
}
