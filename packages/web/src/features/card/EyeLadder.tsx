import { Box, ButtonBase, useTheme } from '@mui/material';
import { EYE_VIEWS, type RungVerdict } from '@steady-gleam/core/letdown';
import { sayCoats } from '../../shared/jobModel';

const PLACE = { 'much lighter': -2, lighter: -1, match: 0, darker: 1, 'much darker': 2 } as const;

interface EyeLadderProps {
  readonly rungs: readonly number[];
  readonly verdicts: readonly RungVerdict[];
  readonly selected: number | null;
  readonly onSelect: (coats: number) => void;
}

/** The card of a painter without an instrument: each rung between too light and too dark, a mark for every place looked from. */
export function EyeLadder({ rungs, verdicts, selected, onSelect }: EyeLadderProps) {
  const { tones } = useTheme();
  return (
    <Box sx={{ flex: 1, minHeight: 300, display: 'flex', flexDirection: 'column' }}>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: '72px repeat(5, 1fr)', fontSize: 14, pb: 0.5, textAlign: 'center' }}
        aria-hidden
      >
        <span />
        {Object.keys(PLACE).map((v) => (
          <span key={v}>{v}</span>
        ))}
      </Box>
      {rungs.map((n) => {
        const own = verdicts.filter((v) => v.coats === n);
        return (
          <ButtonBase
            key={n}
            aria-label={`Rung of ${sayCoats(n)} coats, ${own.length ? own.map((v) => `${v.view}: ${v.verdict}`).join(', ') : 'not judged yet'}`}
            aria-pressed={selected === n}
            onClick={() => onSelect(n)}
            sx={{
              flex: 1,
              minHeight: 60,
              display: 'grid',
              gridTemplateColumns: '72px repeat(5, 1fr)',
              alignItems: 'stretch',
              borderTop: `1px solid ${tones.hairline}`,
              background: selected === n ? tones.raised : 'none',
              '&:hover': { background: tones.panel },
            }}
          >
            <Box component="span" sx={{ typography: 'h1', alignSelf: 'center', fontSize: 26 }}>
              {sayCoats(n)}
            </Box>
            {Object.entries(PLACE).map(([verdict, place]) => (
              <Box
                key={verdict}
                component="span"
                sx={{
                  display: 'flex',
                  flexWrap: 'wrap',
                  gap: 0.5,
                  alignItems: 'center',
                  justifyContent: 'center',
                  background: place === 0 ? tones.raised : 'none',
                  borderLeft: `1px solid ${tones.hairline}`,
                  fontSize: 13.5,
                }}
              >
                {EYE_VIEWS.filter((view) => own.some((v) => v.view === view && v.verdict === verdict)).map((view) => (
                  <Box
                    key={view}
                    component="span"
                    sx={{ px: 0.75, py: 0.25, background: tones.ink, color: tones.page }}
                  >
                    {view}
                  </Box>
                ))}
              </Box>
            ))}
          </ButtonBase>
        );
      })}
    </Box>
  );
}
