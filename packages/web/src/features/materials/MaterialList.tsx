import { type ReactNode } from 'react';
import { Box, Button, Typography, useTheme } from '@mui/material';
import {
  type EffectMix,
  type GroundMaterial,
  type EffectPigment,
  type Dye,
  type Carrier,
} from '@steady-gleam/core/materials';
import { useLibrary } from '../../shared/library';
import type { FormValues } from './formField';
import { copyOf, toValues } from './materialForms';
import type { StoredMaterial } from '@steady-gleam/contracts';

interface MaterialEntryProps {
  readonly entry: EffectMix | GroundMaterial | EffectPigment | Dye | Carrier;
  readonly swatch: (id: string) => ReactNode;
  readonly about: (id: string) => string;
  readonly stored: StoredMaterial | null;
  readonly begin: (start: FormValues, ownId: string | null) => void;
  readonly copy: FormValues | null;
}

/** A material: its look, what it is, the way to change it. */
function MaterialEntry({ entry, swatch, about, stored, begin, copy }: MaterialEntryProps) {
  const { tones } = useTheme();
  return (
    <Box
      component="li"

      sx={{
        display: 'grid',
        gridTemplateColumns: '96px 1fr 78px',
        gap: 1.5,
        alignItems: 'center',
        py: 0.75,
        borderBottom: `1px solid ${tones.hairline}`,
      }}
    >
      {swatch(entry.id)}
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h3" component="div">
          {entry.name}
        </Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {about(entry.id)}
        </Typography>
      </Box>
      {stored ? (
        <Button
          variant="outlined"
          aria-label={`Change ${entry.name}`}
          sx={{ px: 1 }}
          onClick={() => begin(toValues(stored.material), entry.id)}
        >
          Change
        </Button>
      ) : copy ? (
        <Button variant="outlined" aria-label={`Copy ${entry.name}`} sx={{ px: 1 }} onClick={() => begin(copy, null)}>
          Copy
        </Button>
      ) : (
        <span />
      )}
    </Box>
  );
}

interface MaterialListProps {
  readonly name: string;
  readonly entries:
    readonly EffectMix[] | readonly GroundMaterial[] | readonly EffectPigment[] | readonly Dye[] | readonly Carrier[];
  readonly storedOf: (id: string) => StoredMaterial | null;
  readonly kind: 'ground' | 'system' | 'pigment' | 'dye' | 'carrier';
  readonly swatch: (id: string) => ReactNode;
  readonly about: (id: string) => string;
  readonly begin: (start: FormValues, ownId: string | null) => void;
}

/** Materials of a kind, the shop's own first. */
export function MaterialList({ name, entries, storedOf, kind, swatch, about, begin }: MaterialListProps) {
  const { library } = useLibrary();
  return (
    <Box
      component="ul"
      aria-label={name}
      sx={{
        listStyle: 'none',
        p: 0,
        mt: 1.5,
        mb: 0,
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(375px, 1fr))',
        columnGap: 3,
      }}
    >
      {[...entries]
        .sort((a, b) => Number(!!storedOf(b.id)) - Number(!!storedOf(a.id)))
        .map((entry) => {
          const stored = storedOf(entry.id);
          const copy = copyOf(kind, entry.id, library);
          return (
            <MaterialEntry
              key={entry.id}
              entry={entry}
              swatch={swatch}
              about={about}
              stored={stored}
              begin={begin}
              copy={copy}
            />
          );
        })}
    </Box>
  );
}
