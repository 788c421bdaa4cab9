import { Box, ButtonBase, useTheme } from '@mui/material';
import type { FinishFamily } from '@steady-gleam/core/finishes';
import type { SeenSpot } from '@steady-gleam/core/jobs';
import type { EyeView, LookedAt } from '@steady-gleam/core/letdown';
import { sayVerdict, VIEW_NAMES, VIEWS, type Place } from './inspectModel';

/** Places by where one stands: what was said, and what is still to be looked at. */
export function PlaceTable({
  family,
  places,
  read,
  at,
  needed,
  onTap,
}: {
  family: FinishFamily;
  places: readonly (Place & { readonly looks: readonly SeenSpot[] })[];
  /** What its readings say of a place; empty for nothing. */
  read: (place: string) => string;
  at: { readonly place: string; readonly view: EyeView } | null;
  /** What has to be looked at before it may be called matched. */
  needed: readonly LookedAt[];
  onTap: (at: { place: string; view: EyeView }) => void;
}) {
  const { tones } = useTheme();
  const asks = (view: EyeView): boolean =>
    (view === 'low light' && needed.includes('in low light')) ||
    (view === 'sun flop' && needed.includes('in the flop')) ||
    (view === 'sun face' && needed.includes('at the face'));
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Box
        component="table"
        aria-label="Places by where one stands"
        sx={{ borderCollapse: 'collapse', width: '100%', tableLayout: 'fixed', minWidth: 560 }}
      >
        <thead>
          <tr>
            <Box component="th" scope="col" sx={{ width: '21%', textAlign: 'left', fontSize: 15, py: 0.5 }}>
              place
            </Box>
            {VIEWS.map((v) => (
              <Box component="th" scope="col" key={v} sx={{ fontSize: 15, py: 0.5, lineHeight: 1.1, px: 0.5 }}>
                {VIEW_NAMES[v]}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {places.map((p) => (
            <tr key={p.name}>
              <Box
                component="th"
                scope="row"
                sx={{
                  textAlign: 'left',
                  fontSize: 17,
                  pr: 1,
                  borderTop: `1px solid ${tones.hairline}`,
                  lineHeight: 1.15,
                }}
              >
                {p.name}
                {read(p.name) ? (
                  <Box component="span" sx={{ display: 'block', fontSize: 14, fontWeight: 400 }}>
                    {read(p.name)}
                  </Box>
                ) : null}
              </Box>
              {VIEWS.map((view) => {
                const own = p.looks.find((l) => l.view === view && l.against === null && l.patch === null);
                const pair = p.looks.find((l) => l.view === view && l.against !== null && l.verdict !== null);
                const said = own?.verdict ? sayVerdict(family, own.verdict) : null;
                const off = said?.off || own?.hue || (pair && pair.verdict !== 'match');
                const isAt = at?.place === p.name && at.view === view;
                const lines = [
                  said ? `${said.mark} ${said.word}` : '',
                  own?.hue ?? '',
                  pair ? `${sayVerdict(family, pair.verdict!).mark} ${pair.against}` : '',
                  !said && own?.photos.length ? 'photos' : '',
                ].filter(Boolean);
                return (
                  <Box
                    component="td"
                    key={view}
                    sx={{
                      p: 0,
                      border: `1px solid ${tones.hairline}`,
                      background: lines.length ? tones.raised : 'none',
                      outline: isAt ? `4px solid ${tones.pick}` : 'none',
                      outlineOffset: -3,
                    }}
                  >
                    <ButtonBase
                      aria-label={`${p.name}, ${VIEW_NAMES[view]}: ${lines.length ? lines.join(', ') : 'not looked at'}`}
                      aria-pressed={isAt}
                      onClick={() => onTap({ place: p.name, view })}
                      sx={{
                        width: '100%',
                        minHeight: 56,
                        flexDirection: 'column',
                        font: 'inherit',
                        fontSize: 16,
                        lineHeight: 1.15,
                        fontWeight: off ? 700 : 400,
                        color: lines.length ? tones.ink : tones.inkSoft,
                        px: 0.25,
                      }}
                    >
                      {lines.length ? lines.map((t) => <span key={t}>{t}</span>) : asks(view) ? 'look here' : '·'}
                    </ButtonBase>
                  </Box>
                );
              })}
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
