import { Box, Button, Typography, useTheme } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import type { Reading } from '@steady-gleam/core/formats';
import { Table, type Column } from '../ui/Table';
import { countOf } from './countOf';
import { Simulated } from './devices/Simulated';

/** Readings that came from somewhere and are not kept yet. */
export interface Come {
  readonly name: string;
  readonly readings: readonly Reading[];
  readonly source: ReadingSet['source'];
  /** The file of the watched folder. */
  readonly inboxId?: string;
}

const LAB_COLUMNS: readonly Column<Reading>[] = (['l', 'a', 'b'] as const).map((axis) => ({
  ...{ head: `${axis === 'l' ? 'L' : axis}*`, figure: true },
  draw: (r) => r[axis].toFixed(1),
}));

/** Whether two lists hold the very same readings. */
const sameReadings = (a: readonly Reading[], b: readonly Reading[]): boolean =>
  a.length === b.length &&
  a.every((r, i) => (['spot', 'incidence', 'aspecular', 'l', 'a', 'b'] as const).every((k) => r[k] === b[i]![k]));

/** What came in, to be looked at before it is kept. */
export function ReadingsPreview({
  come,
  known,
  keepLabel,
  onKeep,
  onDrop,
}: {
  come: Come;
  known: readonly ReadingSet[];
  keepLabel: string;
  onKeep: () => void;
  onDrop: () => void;
}) {
  const { tones } = useTheme();
  const { readings } = come;
  return (
    <Box sx={{ mt: 2, p: 2, border: `1px solid ${tones.hairline}`, background: tones.raised, maxWidth: 720 }}>
      <Typography>
        {come.name}: {countOf(new Set(readings.map((r) => r.spot)).size, 'spot')}, angles{' '}
        {[...new Set(readings.map((r) => r.aspecular))].sort((p, q) => p - q).join('°, ')}°.{' '}
        {come.source === 'simulated' ? <Simulated /> : null}
      </Typography>
      {known.some((k) => sameReadings(k.readings, readings)) ? (
        <Typography role="alert" sx={{ mt: 0.5 }}>
          These very readings are stored already. Taking them again changes nothing.
        </Typography>
      ) : null}
      <Box sx={{ mt: 1 }}>
        <Table
          label="First readings"
          dense
          rows={readings.slice(0, 5)}
          keyOf={(_, at) => at}
          columns={[
            { head: 'spot', draw: (r) => r.spot },
            { head: 'angle', figure: true, draw: (r) => `${r.aspecular}°` },
            ...LAB_COLUMNS,
          ]}
        />
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
        <Button variant="contained" onClick={onKeep}>
          {keepLabel}
        </Button>
        <Button variant="outlined" onClick={onDrop}>
          Not these
        </Button>
      </Box>
    </Box>
  );
}
