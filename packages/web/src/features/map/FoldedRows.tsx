import { Button, Typography } from '@mui/material';
import type { MapRow, MatchMap } from '@steady-gleam/core/matching';
import type { GroundMaterial } from '@steady-gleam/core/materials';
import { useMemo, useState } from 'react';
import { reachingGrounds, sayFolded } from './mapModel';

/**
 * The map without the grounds that can't reach its target. While a slider moves the rows stay; which of them reach is looked at
 * again once it rests. @param keep a ground that stays: where the probe is
 */
export function useFoldedMap(
  map: MatchMap | null,
  settled: boolean,
  keep: string | null,
): { readonly shown: MatchMap | null; readonly folded: readonly MapRow[]; readonly fold: Fold } {
  const [isOpen, setOpen] = useState(false);
  const [reaching, setReaching] = useState<{ readonly of: MatchMap; readonly ids: ReadonlySet<string> } | null>(null);
  if (map && (settled || !reaching) && reaching?.of !== map) setReaching({ of: map, ids: reachingGrounds(map) });
  return useMemo(() => {
    const stays = ({ groundId }: MapRow) => groundId === keep || (reaching?.ids.has(groundId) ?? true);
    const folded = map ? map.rows.filter((row) => !stays(row)) : [];
    const shown = map && folded.length && !isOpen ? { ...map, rows: map.rows.filter(stays) } : map;
    return { shown, folded, fold: { isOpen, setOpen } };
  }, [map, reaching, keep, isOpen]);
}

interface Fold {
  readonly isOpen: boolean;
  readonly setOpen: (open: boolean) => void;
}

/** One line for the grounds that are folded away, with the way to them. */
export function FoldedRows({
  folded,
  grounds,
  fold: { isOpen, setOpen },
}: {
  folded: readonly MapRow[];
  grounds: readonly GroundMaterial[];
  fold: Fold;
}) {
  if (!folded.length) return null;
  return (
    <Typography variant="body2" sx={{ ml: '130px', display: 'flex', alignItems: 'baseline', gap: 1, flexWrap: 'wrap' }}>
      {sayFolded(folded, grounds)}
      <Button
        variant="text"
        color="inherit"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
        sx={{ px: 0.5, py: 0, minWidth: 0, textDecoration: 'underline' }}
      >
        {isOpen ? 'Fold them away' : 'Show them'}
      </Button>
    </Typography>
  );
}
