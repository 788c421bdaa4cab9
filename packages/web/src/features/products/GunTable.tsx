import { Button, Typography } from '@mui/material';
import { useState } from 'react';
import type { StoredGun, Batch } from '@steady-gleam/contracts';
import type { Gun } from '@steady-gleam/core/products';
import { useUnits } from '../../shared/units';
import { batchesOf, transferOf } from '../../shared/useShop';
import { Table, type Column } from '../../ui/Table';
import { GunLessons } from './GunLessons';
import { changeColumn, Named } from './shelfTable';

interface GunTableProps {
  readonly guns: readonly StoredGun[];
  readonly batches: Batch[];
  readonly onChange: (gun: StoredGun) => void;
}

/** The shop's guns, a row each: what it is, how it lays, what it has learned. */
export function GunTable({ guns, batches, onChange }: GunTableProps) {
  const units = useUnits();
  /** The gun whose lessons are shown. */
  const [open, setOpen] = useState<string | null>(null);
  const figure = (head: string, draw: (g: Gun) => string): Column<StoredGun> => ({
    ...{ head, figure: true },
    draw: ({ gun }) => draw(gun),
  });
  return (
    <Table
      label="Guns"
      rows={guns}
      keyOf={({ gun }) => gun.id}
      columns={[
        {
          head: 'gun',
          draw: ({ gun: g }) => (
            <Named name={g.name} what={`${g.kind}, ${g.turns} ${g.turns === 1 ? 'turn' : 'turns'} open`} />
          ),
        },
        figure('at the gun', (g) => units.say('pressure', g.pressureBar)),
        figure('fan', (g) => units.say('distance', g.fanCm)),
        figure('distance', (g) => units.say('distance', g.distanceCm)),
        figure('speed', (g) => units.say('speed', g.speedCmS)),
        figure('flow', (g) => `${units.say('volume', g.flowMlMin)}/min`),
        {
          ...{ head: 'lands', figure: true },
          draw: ({ gun }) => (
            <Lands
              gun={gun}
              batches={batches}
              isOpen={open === gun.id}
              onOpen={() => setOpen(open === gun.id ? null : gun.id)}
            />
          ),
        },
        changeColumn(({ gun }) => gun.name, onChange),
      ]}
      below={({ gun }) => (open === gun.id ? <GunLessons gun={gun} batches={batches} /> : null)}
    />
  );
}

interface LandsProps {
  readonly gun: Gun;
  readonly batches: readonly Batch[];
  /** Its lessons are shown below. */
  readonly isOpen: boolean;
  readonly onOpen: () => void;
}

/** How much of what a gun sprays lands, and from what that is known. */
function Lands({ gun: g, batches, isOpen, onOpen }: LandsProps) {
  const learned = transferOf(g, batches);
  return (
    <>
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
    </>
  );
}
