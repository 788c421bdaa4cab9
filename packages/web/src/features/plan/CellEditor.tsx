import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import type { CellEdit, Reach, SprayArea } from '@steady-gleam/core/jobs';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { useTypedForm } from '../../ui/useTypedForm';
import { checkedCell, typedCell, type TableCell, type TypedCell } from './cellModel';

const KINDS: Record<Exclude<Reach['kind'], 'fan'>, string> = {
  all: 'All over',
  spot: 'Spot',
  blend: 'Blend',
  none: 'Not here',
};

/** One layer on one area: how many coats of it, and how far they go. */
export function CellEditor({
  cell,
  edit,
  area,
  name,
  onKeep,
  onClose,
}: {
  cell: TableCell;
  edit: CellEdit | undefined;
  area: SprayArea;
  /** Of the layer. */
  name: string;
  /** Null: as finish and object have it. */
  onKeep: (edit: CellEdit | null) => void;
  onClose: () => void;
}) {
  const form = useTypedForm<TypedCell, CellEdit>({
    start: typedCell(cell, edit),
    check: (typed) => checkedCell(typed, area, cell.layerId),
    keep: async (kept) => onKeep(kept),
  });
  const typed = form.values;
  const measure = (key: 'm2' | 'endCm' | 'fadeCm' | 'stepCm', label: string) => (
    <MeasureField measure={key === 'm2' ? 'area' : 'distance'} label={label} {...form.measure(key)} />
  );
  return (
    <Box
      component="form"
      noValidate
      aria-label={`${name} on ${area.name}`}
      onSubmit={form.onSubmit}
      sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}
    >
      <Typography variant="h2">
        {name} on {area.name}
      </Typography>
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={typed.kind}
        aria-label="How far it goes"
        onChange={(_, v: Reach['kind'] | null) =>
          v && form.setAll({ ...typed, kind: v, ...(Number(typed.coats) ? {} : { coats: '1' }) })
        }
      >
        {(Object.keys(KINDS) as (keyof typeof KINDS)[]).map((k) => (
          <ToggleButton key={k} value={k} sx={{ px: 0.5, fontSize: 14 }}>
            {KINDS[k]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {typed.kind === 'none' ? null : <Field label="Coats" {...form.text('coats')} decimal />}
      {typed.kind === 'spot' ? measure('m2', 'Size of the spot') : null}
      {typed.kind === 'blend' ? (
        <>
          {measure('endCm', 'Ends at')}
          {measure('fadeCm', 'Fades over')}
          {measure('stepCm', 'Each coat goes further by')}
          <Field label="Starts from" {...form.text('from')} hint="for instance: the door’s edge, the repair" />
        </>
      ) : null}
      {typed.kind === 'spot' ? (
        <Typography variant="body2">Two spots are one size together: 0.1 and 0.1 are 0.2.</Typography>
      ) : null}
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button type="submit" variant="contained">
          Keep it so
        </Button>
        {edit ? (
          <Button variant="outlined" onClick={() => onKeep(null)}>
            As the finish has it
          </Button>
        ) : null}
        <Button variant="outlined" onClick={onClose}>
          Close
        </Button>
      </Box>
    </Box>
  );
}
