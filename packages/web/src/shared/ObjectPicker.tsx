import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { JobObjectRow } from '@steady-gleam/contracts';

/** Which object of a job the pages are about; nothing is picked for all of them. */
export function ObjectPicker({
  objects,
  picked,
  onPick,
}: {
  objects: readonly JobObjectRow[];
  picked: string | null;
  onPick: (id: string | null) => void;
}) {
  return (
    <ToggleButtonGroup
      exclusive
      value={picked ?? 'all'}
      aria-label="Object"
      onChange={(_, v: string | null) => v && onPick(v === 'all' ? null : v)}
      sx={{ flex: 'none', maxWidth: 330, overflowX: 'auto' }}
    >
      <ToggleButton value="all" sx={{ px: 1.25 }}>
        All
      </ToggleButton>
      {objects.map((o) => (
        <ToggleButton key={o.id} value={o.id} title={o.name} sx={{ px: 1.25, whiteSpace: 'nowrap' }}>
          {o.name.length > 12 ? `${o.name.slice(0, 11)}…` : o.name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
