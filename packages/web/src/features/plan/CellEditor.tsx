import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import type { CellEdit, Reach, SprayArea } from '@steady-gleam/core/jobs';
import { useState } from 'react';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { useUnits } from '../../shared/units';
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
  const units = useUnits();
  const [typed, setTyped] = useState(() => typedCell(cell, edit));
  const [faults, setFaults] = useState<Readonly<Record<string, string>>>({});
  const set = (more: Partial<TypedCell>) => setTyped((old) => ({ ...old, ...more }));
  const measure = (key: 'm2' | 'endCm' | 'fadeCm' | 'stepCm', label: string) => (
    <MeasureField
      measure={key === 'm2' ? 'area' : 'distance'}
      label={label}
      value={typed[key]}
      onValue={(v) => set({ [key]: v })}
      error={faults[key] && units.sentence(faults[key])}
    />
  );
  return (
    <Box
      component="form"
      noValidate
      aria-label={`${name} on ${area.name}`}
      onSubmit={(e) => {
        e.preventDefault();
        const checked = checkedCell(typed, area, cell.layerId);
        setFaults(checked.ok ? {} : checked.faults);
        if (checked.ok) onKeep(checked.edit);
      }}
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
        onChange={(_, v: Reach['kind'] | null) => v && set({ kind: v, ...(Number(typed.coats) ? {} : { coats: '1' }) })}
      >
        {(Object.keys(KINDS) as (keyof typeof KINDS)[]).map((k) => (
          <ToggleButton key={k} value={k} sx={{ px: 0.5, fontSize: 14 }}>
            {KINDS[k]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {typed.kind === 'none' ? null : (
        <Field
          label="Coats"
          value={typed.coats}
          onChange={(e) => set({ coats: e.target.value })}
          error={faults['coats']}
          decimal
        />
      )}
      {typed.kind === 'spot' ? measure('m2', 'Size of the spot') : null}
      {typed.kind === 'blend' ? (
        <>
          {measure('endCm', 'Ends at')}
          {measure('fadeCm', 'Fades over')}
          {measure('stepCm', 'Each coat goes further by')}
          <Field
            label="Starts from"
            value={typed.from}
            onChange={(e) => set({ from: e.target.value })}
            error={faults['from']}
            hint="for instance: the door’s edge, the repair"
          />
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
