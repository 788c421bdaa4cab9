import { ToggleButton, ToggleButtonGroup } from '@mui/material';

/** A choice of a few, side by side. */
export function Toggles<T extends string>({
  label,
  value,
  choices,
  onPick,
}: {
  label: string;
  /** Undefined where none of them is. */
  value: T | undefined;
  choices: readonly (readonly [T, string])[];
  onPick: (v: T) => void;
}) {
  return (
    <ToggleButtonGroup exclusive value={value} aria-label={label} onChange={(_, v: T | null) => v && onPick(v)}>
      {choices.map(([id, name]) => (
        <ToggleButton key={id} value={id} sx={{ px: 1.25, whiteSpace: 'nowrap' }}>
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
