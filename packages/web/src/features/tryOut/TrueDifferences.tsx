import { Box, Typography } from '@mui/material';
import { type CurtainSaid } from '@steady-gleam/contracts';
import { limitAt } from '@steady-gleam/core/finishes';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { type PageDetail } from '../../shared/useJob';
import { Table, type Column } from '../../ui/Table';
import { sayEnd, sayFilm } from './curtainModel';

interface TrueDifferencesProps {
  readonly said: CurtainSaid;
  readonly usual: Readonly<Record<number, number>>;
  readonly job: PageDetail['job'];
}

/** The line of limits has a name and figures, and nothing else. */
interface Line {
  readonly name: string;
  readonly differences: readonly number[];
  readonly ended: Pick<NonNullable<CurtainSaid['nominal']>, 'film' | 'end'> | null;
}

/** How far each object really is from what it had to match, angle by angle. */
export function TrueDifferences({ said, usual, job }: TrueDifferencesProps) {
  const limits = FIVE_ANGLES.map((g) => limitAt(g.aspecular, usual, job.limits));
  const lines: readonly Line[] = [
    ...[...said.objects, said.nominal].map((o) => ({ name: o.name, differences: o.differences, ended: o })),
    { name: 'limit', differences: limits, ended: null },
  ];
  const isOff = (line: Line, g: number) => line.ended !== null && line.differences[g]! > limits[g]!;
  return (
    <Box>
      <Typography variant="h2">True difference at each angle, dE00</Typography>
      <Table
        label="True differences"
        rows={lines}
        keyOf={(line) => line.name}
        columns={[
          { head: 'where', draw: (line) => line.name },
          ...FIVE_ANGLES.map(({ aspecular }, g): Column<Line> => ({
            ...{ head: `${aspecular}°`, figure: true, headStyle: { paddingRight: 22 } },
            draw: (line) => (
              <>
                {line.differences[g]!.toFixed(1)}
                <span style={{ display: 'inline-block', width: 18 }}>{isOff(line, g) ? ' ×' : ''}</span>
              </>
            ),
            style: (line) => ({ fontWeight: isOff(line, g) ? 700 : 400, paddingRight: 4 }),
          })),
          { head: 'film', figure: true, draw: ({ ended }) => (ended ? sayFilm(ended.film) : '') },
          {
            ...{ head: 'ended', style: { paddingLeft: 10, fontWeight: 640 }, headStyle: { paddingLeft: 10 } },
            draw: ({ ended }) => (ended ? sayEnd(ended.end) : ''),
          },
        ]}
      />
    </Box>
  );
}
