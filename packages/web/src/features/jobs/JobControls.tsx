import { Box } from '@mui/material';
import { JOB_SORTS, JOB_STATES, type JobQuery } from '@steady-gleam/contracts';
import { FAMILY_IDS } from '@steady-gleam/core/finishes';
import { FamilyField } from '../../shared/FamilyField';
import { Field } from '../../ui/Field';

/** What the address of the page asks the list for; whatever it can't mean is left out. */
export const jobQueryOf = (params: URLSearchParams): Omit<JobQuery, 'page'> => ({
  words: (params.get('words') ?? '').slice(0, 120),
  family: FAMILY_IDS.find((f) => f === params.get('family')) ?? null,
  status: JOB_STATES.find((s) => s === params.get('state')) ?? 'listed',
  sort: JOB_SORTS.find((s) => s === params.get('sort')) ?? 'next',
});

/** Search, state, family and order of the list of jobs. */
export function JobControls({
  query,
  states,
  onChange,
}: {
  query: Omit<JobQuery, 'page'>;
  states: Readonly<Record<'open' | 'finished' | 'away', number>>;
  onChange: (to: Record<string, string>) => void;
}) {
  return (
    <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'flex-end', mb: 1.5 }}>
      <Box sx={{ flex: '1 1 200px', maxWidth: 320 }}>
        <Field
          label="Search the jobs"
          type="search"
          value={query.words}
          onChange={(e) => onChange({ words: e.target.value })}
        />
      </Box>
      <Box sx={{ width: 200 }}>
        <Field
          label="State"
          select
          value={query.status === 'listed' ? '' : query.status}
          onChange={(e) => onChange({ state: e.target.value })}
        >
          <option value="">Open and finished</option>
          <option value="open">Open: {states.open}</option>
          <option value="finished">Finished: {states.finished}</option>
          <option value="away">Put away: {states.away}</option>
        </Field>
      </Box>
      <Box sx={{ width: 150 }}>
        <FamilyField value={query.family} onPick={(family) => onChange({ family })} />
      </Box>
      <Box sx={{ width: 150 }}>
        <Field
          label="First"
          select
          value={query.sort === 'next' ? '' : query.sort}
          onChange={(e) => onChange({ sort: e.target.value })}
        >
          <option value="">What is next</option>
          <option value="latest">Latest</option>
          <option value="name">By name</option>
        </Field>
      </Box>
    </Box>
  );
}
