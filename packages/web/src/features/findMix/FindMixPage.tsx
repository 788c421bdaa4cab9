import { Box, Button } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import { FAMILIES, FAMILY_IDS, limitAt, type FinishFamily } from '@steady-gleam/core/finishes';
import { averageReadings } from '@steady-gleam/core/formats';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useState } from 'react';
import { USUAL_ANGLES } from '../../shared/angles';
import { Answer } from '../../shared/Answer';
import { Field } from '../../ui/Field';
import { useLibrary } from '../../shared/library';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { BeginJob } from './BeginJob';
import { askOf, isFound, saySearch } from './findModel';
import { FoundMixes } from './FoundMixes';
import { useFormulate } from './useFormulate';

/** From a reading to mixes of what stands on the shelf. */
export function FindMixPage() {
  const { library } = useLibrary();
  const families = FAMILY_IDS.filter((f) => isFound(f, library));
  const [family, setFamily] = useState<FinishFamily>(families[0]!);
  const [read, setRead] = useState<ReadingSet | null>(null);
  const search = useFormulate();
  const target: TargetAngle[] = averageReadings(read?.readings ?? []).map(({ incidence, aspecular, lab }) => ({
    ...{ incidence, aspecular, lab },
    tolerance: limitAt(aspecular, FAMILIES[family].limits, null),
  }));
  const begin = (of: FinishFamily, set: ReadingSet) => {
    const angles = averageReadings(set.readings).map(({ incidence, aspecular, lab }) => ({
      ...{ incidence, aspecular, lab },
      tolerance: limitAt(aspecular, FAMILIES[of].limits, null),
    }));
    search.start(askOf(of, angles, library));
  };
  const said = read
    ? saySearch(search, target, library)
    : {
        answer: 'Read it, and see which of what stands on the shelf makes it.',
        why: 'Every pair of effect pigments and every pair of dyes over every ground of the shop is looked at; what is found is rounded to what a scale shows and looked at again.',
      };
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Answer why={said.why}>{said.answer}</Answer>
      <Box sx={{ width: 280, mb: 2 }}>
        <Field
          label="Family"
          select
          value={family}
          onChange={(e) => {
            const next = e.target.value as FinishFamily;
            setFamily(next);
            if (read) begin(next, read);
          }}
        >
          {families.map((f) => (
            <option key={f} value={f}>
              {FAMILIES[f].name}
            </option>
          ))}
        </Field>
      </Box>
      {read ? null : (
        <ReadingsForm
          kind="target"
          rungCoats={null}
          angles={USUAL_ANGLES}
          saveLabel="Find the mix"
          onSave={async (set) => {
            setRead(set);
            begin(family, set);
            return Promise.resolve();
          }}
        />
      )}
      {read ? (
        <FoundMixes
          {...{ search, target }}
          again={
            <>
              <Button variant="outlined" onClick={() => begin(family, read)}>
                Look again
              </Button>
              <Button variant="text" color="inherit" onClick={() => setRead(null)}>
                Another reading
              </Button>
            </>
          }
          action={(mix) => <BeginJob {...{ mix, family, read }} />}
        />
      ) : null}
    </Box>
  );
}
