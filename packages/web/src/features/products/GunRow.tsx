import { Button, Typography } from '@mui/material';
import type { StoredGun, Batch } from '@steady-gleam/contracts';
import { useUnits } from '../../shared/units';
import { batchesOf, transferOf } from '../../shared/useShop';
import { ChangeCell, useCells } from './shelfTable';

interface GunRowProps {
  readonly stored: StoredGun;
  readonly batches: readonly Batch[];
  /** Its lessons are shown below. */
  readonly isOpen: boolean;
  readonly onOpen: () => void;
  readonly onChange: () => void;
}

/** A gun: what it is, how it lays, what it has learned. */
export function GunRow({ stored: { gun: g }, batches, isOpen, onOpen, onChange }: GunRowProps) {
  const { text: td, figure } = useCells();
  const learned = transferOf(g, batches);
  const units = useUnits();
  return (
    <tr>
      <td style={td}>
        <Typography variant="h3" component="div">
          {g.name}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {g.kind}, {g.turns} {g.turns === 1 ? 'turn' : 'turns'} open
        </Typography>
      </td>
      <td style={figure}>{units.say('pressure', g.pressureBar)}</td>
      <td style={figure}>{units.say('distance', g.fanCm)}</td>
      <td style={figure}>{units.say('distance', g.distanceCm)}</td>
      <td style={figure}>{units.say('speed', g.speedCmS)}</td>
      <td style={figure}>{units.say('volume', g.flowMlMin)}/min</td>
      <td style={figure}>
        {Math.round(learned.mean * 100)} %
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {learned.lessons
            ? `from ${learned.lessons} ${learned.lessons === 1 ? 'batch' : 'batches'}; stated ${Math.round(g.transfer * 100)} %`
            : 'as stated'}
        </Typography>
        {batchesOf(g, batches).length ? (
          <Button
            variant="text"
            color="inherit"
            aria-expanded={isOpen}
            onClick={onOpen}
            sx={{ px: 0.5, textDecoration: 'underline' }}
          >
            Where from
          </Button>
        ) : null}
      </td>
      <ChangeCell name={g.name} onChange={onChange} />
    </tr>
  );
}
