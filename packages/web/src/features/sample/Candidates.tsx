import { Box, Button, Typography, useTheme } from '@mui/material';

import type { Lab } from '@steady-gleam/core/colour';
import { andControl, type Recipe, STYLES } from '@steady-gleam/core/finishes';
import { scoreMatch, type TargetAngle } from '@steady-gleam/core/matching';
import { findGround } from '@steady-gleam/core/materials';
import type { useCompareList } from '../../shared/compareList';
import { countCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import type { SampleLook } from '@steady-gleam/core/looks';
import { FlatSample } from './CurvedSample';
import { type BodyShape, type SampleScene } from './sampleShading';
import { sceneOf } from './useSamplePictures';

interface CandidateProps {
  readonly pick: Recipe;
  readonly groundName: string;
  readonly look: SampleLook | null;
  readonly scene: SampleScene | null;
  readonly target: readonly Lab[];
  readonly rmsDe: number | null;
  readonly onRemove: () => void;
}

/** One candidate at face, at flop and on the body; its target above it, touching. */
function Candidate({ pick, groundName, look, scene, target, rmsDe, onRemove }: CandidateProps) {
  const ends = look ? [0, look.labs.length - 1] : [];
  const exposures = look ? exposuresByAngle(target.length ? [target, look.labs] : [look.labs]) : [];
  return (
    <Box role="listitem" sx={{ pt: 1, minWidth: 0 }}>
      <Typography variant="h3" component="div" noWrap>
        {groundName}, {countCoats(pick.coats)}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 0.5 }}>
        {pick.strength.toFixed(2)}×, {STYLES[pick.style].name.toLowerCase()}
        {andControl(pick.controlCoats)}
        {rmsDe === null ? '' : ` · dE00 ${rmsDe.toFixed(1)}`}
      </Typography>
      <Box sx={{ display: 'flex', height: 84 }} role="img" aria-label="Face and flop, target above">
        {ends.map((g) => (
          <Box key={g} sx={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
            {target.length ? <div style={{ flex: 1, background: cssOf(target[g]!, exposures[g]) }} /> : null}
            <div style={{ flex: 1, background: cssOf(look!.labs[g]!, exposures[g]) }} />
          </Box>
        ))}
      </Box>
      {scene ? <FlatSample scene={scene} width={240} /> : <Box sx={{ height: 120 }} />}
      <Button variant="text" color="inherit" onClick={onRemove} sx={{ px: 0.5 }}>
        Leave it out
      </Button>
    </Box>
  );
}

interface CandidatesProps {
  readonly compare: ReturnType<typeof useCompareList>;
  readonly shownLooks: readonly SampleLook[] | null;
  readonly shape: BodyShape;
  readonly lamp: readonly [number, number];
  readonly exposure: number;
  readonly target: TargetAngle[];
}

/** What was put aside, side by side. */
export function Candidates({ compare, shownLooks, shape, lamp, exposure, target }: CandidatesProps) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  return (
    <Box
      role="list"
      aria-label="Candidates"
      sx={{
        display: 'grid',
        gridTemplateColumns: `repeat(${compare.list.length}, minmax(0, 260px))`,
        borderTop: `1px solid ${tones.hairline}`,
      }}
    >
      {compare.list.map((o, i) => (
        <Candidate
          key={JSON.stringify(o)}
          pick={o}
          groundName={findGround(o.groundId, library.grounds).name}
          look={shownLooks?.[i] ?? null}
          scene={shownLooks?.[i] ? sceneOf(shownLooks[i], shape, lamp, exposure) : null}
          target={target.map((t) => t.lab)}
          rmsDe={shownLooks?.[i] && target.length ? scoreMatch(target, shownLooks[i].labs).rmsDe : null}
          onRemove={() => compare.toggle(o)}
        />
      ))}
    </Box>
  );
}
