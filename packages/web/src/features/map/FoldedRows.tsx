import { Box, Typography } from '@mui/material';
import type { MapRow, MatchMap } from '@steady-gleam/core/matching';
import type { GroundMaterial } from '@steady-gleam/core/materials';
import { useMemo, useState } from 'react';
import { nearGrounds, sayFolded } from './mapModel';

/**
 * The map without the grounds that stay far off its target. While a slider moves the rows stay; which of them come near is looked at
 * again once it rests. @param keep a ground that stays: where the probe is
 */
export function useFoldedMap(
  map: MatchMap | null,
  settled: boolean,
  keep: string | null,
): { readonly shown: MatchMap | null; readonly folded: readonly MapRow[]; readonly fold: Fold } {
  const [isOpen, setOpen] = useState(false);
  const [reaching, setReaching] = useState<{ readonly of: MatchMap; readonly ids: ReadonlySet<string> } | null>(null);
  if (map && (settled || !reaching) && reaching?.of !== map) setReaching({ of: map, ids: nearGrounds(map) });
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
    <Typography variant="body2" sx={{ ml: '130px' }}>
      {sayFolded(folded, grounds)}{' '}
      <Box
        component="button"
        type="button"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
        sx={{
          ...{ border: 0, background: 'none', color: 'inherit', font: 'inherit', fontWeight: 700, cursor: 'pointer' },
          ...{ minHeight: 24, px: 0.5, whiteSpace: 'nowrap', textDecoration: 'underline' },
        }}
      >
        {isOpen ? 'Fold them away' : 'Show them'}
      </Box>
    </Typography>
  );
}
