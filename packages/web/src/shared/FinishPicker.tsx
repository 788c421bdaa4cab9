import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { FinishName } from '@steady-gleam/contracts';

/** Which finish of a job the pages of the colour are about. */
export function FinishPicker({
  finishes,
  picked,
  onPick,
}: {
  finishes: readonly FinishName[];
  picked: string;
  onPick: (id: string) => void;
}) {
  return (
    <ToggleButtonGroup
      exclusive
      value={picked}
      aria-label="Finish"
      onChange={(_, v: string | null) => v && onPick(v)}
      sx={{ flex: 'none', maxWidth: 330, overflowX: 'auto' }}
    >
      {finishes.map((f) => (
        <ToggleButton key={f.id} value={f.id} title={f.name} sx={{ px: 1.25, whiteSpace: 'nowrap' }}>
          {f.name.length > 14 ? `${f.name.slice(0, 13)}…` : f.name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
