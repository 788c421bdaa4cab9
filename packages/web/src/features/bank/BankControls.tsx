import { Box, ToggleButton, ToggleButtonGroup } from '@mui/material';
import type { queryOf, Way } from './bankModel';
import { FamilyField } from '../../shared/FamilyField';
import { Field } from '../../ui/Field';

const WAY_NAMES: Readonly<Record<Way, string>> = { words: 'By words', reading: 'A reading', look: 'A look' };

/** How the bank is searched: by words, by a reading or by a look; and what of it is shown. */
export function BankControls({
  query,
  onChange,
}: {
  query: ReturnType<typeof queryOf>;
  onChange: (next: Record<string, string>) => void;
}) {
  return (
    <Box sx={{ display: 'flex', columnGap: 1.5, rowGap: 0.5, flexWrap: 'wrap', alignItems: 'flex-end', mb: 1.5 }}>
      <ToggleButtonGroup
        exclusive
        value={query.by}
        aria-label="Look for"
        onChange={(_, by: Way | null) => by && onChange({ by: by === 'words' ? '' : by })}
      >
        {(Object.keys(WAY_NAMES) as Way[]).map((w) => (
          <ToggleButton key={w} value={w}>
            {WAY_NAMES[w]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {query.by === 'words' ? (
        <>
          <Box sx={{ flex: '1 1 280px' }}>
            <Field
              label="Search the bank"
              type="search"
              value={query.words}
              onChange={(e) => onChange({ words: e.target.value })}
            />
          </Box>
          {/* What narrows the list stands on a line of its own. */}
          <Box sx={{ flexBasis: '100%', height: 0 }} />
          <Box sx={{ width: 200 }}>
            <FamilyField value={query.family} onPick={(family) => onChange({ family })} />
          </Box>
          <Box sx={{ width: 200 }}>
            <Field label="First" select value={query.sort} onChange={(e) => onChange({ sort: e.target.value })}>
              <option value="latest">Latest</option>
              <option value="name">By name</option>
              <option value="proven">Most proven</option>
            </Field>
          </Box>
          <ToggleButton
            value="proven"
            selected={query.proven}
            onChange={() => onChange({ proven: query.proven ? '' : 'true' })}
          >
            Proven
          </ToggleButton>
        </>
      ) : null}
    </Box>
  );
}
