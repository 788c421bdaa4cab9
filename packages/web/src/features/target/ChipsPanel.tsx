import { Box, Button, Typography } from '@mui/material';
import type { JobDetail, ReadingSet } from '@steady-gleam/contracts';
import { de2000 } from '@steady-gleam/core/colour';
import { averageReadings } from '@steady-gleam/core/formats';
import { describeDifference, type TargetAngle } from '@steady-gleam/core/matching';
import { useState, type Dispatch, type SetStateAction } from 'react';
import { Field } from '../../ui/Field';
import { Table, type Column } from '../../ui/Table';
import { Strips } from '../../shared/Strips';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { useAddReadings } from '../../shared/useJob';
import { nearestRung, rankChips, sayTriangle, type RankedChip } from './chipsModel';
import { TakeOut, useTakenOut } from '../../shared/TakeOut';
import { angleKey, sayAngle } from '../../shared/angles';

interface ChipsPanelProps {
  readonly detail: JobDetail;
  readonly target: readonly TargetAngle[];
}

/** Variant chips against the object, angle by angle, the nearest first; and how far chips can be trusted. */
export function ChipsPanel({ detail, target }: ChipsPanelProps) {
  const { job, chips, rungs } = detail;
  const add = useAddReadings(job);
  const [adding, setAdding] = useState(false);
  const [name, setName] = useState('');
  const [changing, setChanging] = useState<ReadingSet | null>(null);
  const { took, note } = useTakenOut();
  const ranked = rankChips(chips, target);
  const setOf = (label: string) => chips.find((c) => c.label === label)!;
  const exposures = exposuresByAngle([target.map((t) => t.lab)]);
  const rung = nearestRung(
    rungs.filter((r) => r.state === 'cleared'),
    target,
  );
  const triangle =
    ranked[0] && rung ? sayTriangle(ranked[0], averageReadings(rung.readings), target, rung.rungCoats ?? 0) : null;
  return (
    <Box component="section" aria-label="Variant chips" sx={{ mt: 3, maxWidth: 720 }}>
      <Typography variant="h2">Variant chips</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {ranked.length
          ? `Nearest to the object is ${ranked[0]!.label}, dE00 ${ranked[0]!.rmsDe.toFixed(1)} over its angles.`
          : 'Enter the chips you have: they are ranked against the object at every angle.'}
      </Typography>
      {ranked.length ? (
        <ChipTable
          target={target}
          ranked={ranked}
          exposures={exposures}
          setChanging={setChanging}
          setOf={setOf}
          setName={setName}
          setAdding={setAdding}
          took={took}
        />
      ) : null}
      {note}
      {triangle ? <Typography sx={{ mt: 1 }}>{triangle}</Typography> : null}
      {adding ? (
        <Box sx={{ mt: 1.5 }}>
          <Box sx={{ maxWidth: 300, mb: 1 }}>
            <Field
              label="Name of the chip"
              value={name}
              disabled={changing !== null}
              onChange={(e) => setName(e.target.value)}
              hint="For instance: standard, or lighter and redder"
            />
          </Box>
          <ReadingsForm
            key={changing?.id ?? 'new'}
            initial={changing}
            kind="chip"
            rungCoats={null}
            label={name}
            angles={target}
            saveLabel={changing ? 'Keep the correction' : 'Keep this chip'}
            known={chips}
            simulated={job.tryOut ? { jobId: job.id } : null}
            onCancel={() => {
              setAdding(false);
              setChanging(null);
            }}
            onSave={async (s) => {
              await add.mutateAsync(s);
              setAdding(false);
              setChanging(null);
              setName('');
            }}
          />
        </Box>
      ) : (
        <Button
          sx={{ mt: 1 }}
          variant="outlined"
          onClick={() => {
            setName('');
            setAdding(true);
          }}
        >
          Add a chip
        </Button>
      )}
    </Box>
  );
}

interface ChipTableProps {
  readonly target: readonly TargetAngle[];
  readonly ranked: RankedChip[];
  readonly exposures: number[];
  readonly setChanging: Dispatch<SetStateAction<ReadingSet | null>>;
  readonly setOf: (label: string) => ReadingSet;
  readonly setName: Dispatch<SetStateAction<string>>;
  readonly setAdding: Dispatch<SetStateAction<boolean>>;
  readonly took: ReturnType<typeof useTakenOut>['took'];
}

/** Chips by how near they are to the object, each under it. */
function ChipTable({ target, ranked, exposures, setChanging, setOf, setName, setAdding, took }: ChipTableProps) {
  return (
    <Box sx={{ mt: 1 }}>
      <Table
        label="Chips ranked"
        rows={ranked}
        keyOf={(c) => c.label}
        columns={[
          {
            head: 'object over chip',
            draw: (c) => (
              <Strips
                width={150}
                pairs={target.map((t, g) => [cssOf(t.lab, exposures[g]), c.labs[g] && cssOf(c.labs[g], exposures[g])])}
              />
            ),
          },
          { head: 'chip', draw: (c) => c.label },
          ...target.map((t, g): Column<RankedChip> => ({
            ...{ id: angleKey(t), head: sayAngle(t), figure: true },
            draw: (c) => (c.labs[g] ? de2000(t.lab, c.labs[g]).toFixed(1) : '–'),
          })),
          {
            ...{ head: 'at its worst', style: { paddingLeft: 6 }, headStyle: { paddingLeft: 6 } },
            draw: (c) => (c.worst === null ? '' : describeDifference(target[c.worst]!.lab, c.labs[c.worst]!).text),
          },
          {
            ...{ id: 'change', head: '', style: { whiteSpace: 'nowrap' } },
            draw: (c) => (
              <Box sx={{ display: 'flex' }}>
                <Button
                  variant="text"
                  color="inherit"
                  sx={{ px: 0.5, minHeight: 44 }}
                  onClick={() => {
                    setChanging(setOf(c.label));
                    setName(c.label);
                    setAdding(true);
                  }}
                >
                  Correct
                </Button>
                <TakeOut
                  set={setOf(c.label)}
                  what="Take out"
                  onTaken={() => took(setOf(c.label), `The chip ${c.label}`)}
                />
              </Box>
            ),
          },
        ]}
      />
    </Box>
  );
}
