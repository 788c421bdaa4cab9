import type { ReactNode, Dispatch, SetStateAction } from 'react';
import { Button, Typography } from '@mui/material';
import { type StoredGun, type Batch } from '@steady-gleam/contracts';
import { type Gun } from '@steady-gleam/core/products';
import { useUnits } from '../../shared/units';

interface GunRowProps {
  readonly td: {
    readonly padding: '7px 10px 7px 0';
    readonly borderTop: `1px solid ${string}`;
    readonly verticalAlign: 'middle';
  };
  readonly g: Gun;
  readonly figure: {
    textAlign: 'right';
    whiteSpace: 'nowrap';
    padding: '7px 10px 7px 0';
    borderTop: `1px solid ${string}`;
    verticalAlign: 'middle';
  };
  readonly learned: { readonly mean: number; readonly sd: number; readonly lessons: number };
  readonly taught: Batch[];
  readonly lessons: string | null;
  readonly setLessons: Dispatch<SetStateAction<string | null>>;
  readonly changeCell: (name: string, onClick: () => void) => ReactNode;
  readonly editGun: (stored: StoredGun | null, start: Gun) => void;
  readonly stored: { gun: Gun; version: number };
}

/** A gun: what it is, how it lays, what it has learned. */
export function GunRow({
  td,
  g,
  figure,
  learned,
  taught,
  lessons,
  setLessons,
  changeCell,
  editGun,
  stored,
}: GunRowProps) {
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
        {taught.length ? (
          <Button
            variant="text"
            color="inherit"
            aria-expanded={lessons === g.id}
            onClick={() => setLessons(lessons === g.id ? null : g.id)}
            sx={{ px: 0.5, textDecoration: 'underline' }}
          >
            Where from
          </Button>
        ) : null}
      </td>
      {changeCell(g.name, () => editGun(stored, g))}
    </tr>
  );
}
