import { Box, Button, ToggleButton, Typography, useTheme } from '@mui/material';
import { labOf, type Lab } from '@steady-gleam/core/colour';
import { learnTint, sealerForShade, SEALER_TONES, type SealerMix, type SealerTone } from '@steady-gleam/core/mixing';
import { createFilm, type Film } from '@steady-gleam/core/optics';
import { useMemo, useState, type ReactNode, type Dispatch, type SetStateAction } from 'react';
import { FIGURES } from '../../app/theme';
import { numberIn } from '../../shared/numberIn';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { useLibrary } from '../../shared/library';
import { cssOf, exposuresByAngle, inkOn } from '../../shared/screenColour';
import type { GroundMaterial } from '@steady-gleam/core/materials';

const STORED = 'steady-gleam.sealer-tints';

function keptTints(): readonly number[] {
  try {
    const kept = JSON.parse(localStorage.getItem(STORED) ?? '[]') as unknown;
    return Array.isArray(kept) &&
      kept.length === SEALER_TONES.length &&
      kept.every((v) => typeof v === 'number' && v > 0)
      ? (kept as number[])
      : SEALER_TONES.map((t) => t.scatter);
  } catch {
    return SEALER_TONES.map((t) => t.scatter);
  }
}

/** Chroma under which a shade is a grey, mixed of white and black alone; ours. */
const GREY_UNDER = 3;

/** Parts for a shade; searched when the shade or a tint's strength has changed, not with every drawing. */
function useShade(film: Film, wanted: Lab | null, tints: readonly number[]): SealerMix | null {
  const [l, a, b] = wanted ?? [NaN, NaN, NaN];
  return useMemo(() => {
    if (Number.isNaN(l)) return null;
    const sealers = SEALER_TONES.map((t, i) => ({ ...t, scatter: tints[i]! }));
    return sealerForShade(film, Math.hypot(a, b) < GREY_UNDER ? sealers.slice(0, 2) : sealers, [l, a, b]);
  }, [film, l, a, b, tints]);
}

type Typed = readonly [string, string, string];
const withAxis = ([l, a, b]: Typed, axis: number, v: string): Typed => [
  axis === 0 ? v : l,
  axis === 1 ? v : a,
  axis === 2 ? v : b,
];

/** A sealer mixed to a wanted shade, by the film model; a trial teaches it how strongly the tint acts. */
export function ShadePanel({
  tabs,
  shade,
  onUse,
}: {
  tabs: ReactNode;
  /** Parts in use for the sealer's batch. */
  shade: readonly { readonly name: string; readonly parts: number }[];
  onUse: (parts: readonly { readonly name: string; readonly parts: number }[]) => void;
}) {
  const { library } = useLibrary();
  const film = useMemo(() => createFilm(), []);
  const [tints, setTints] = useState(keptTints);
  const [groundId, setGroundId] = useState('grey-63');
  const [typed, setTyped] = useState<Typed | null>(null);
  const [trial, setTrial] = useState('');
  const values = library.grounds.filter((g) => g.words !== undefined);
  const lab: Lab | null = typed
    ? labOf(typed.map(numberIn))
    : (library.grounds.find((g) => g.id === groundId)?.lab ?? [63, 0, 0]);
  const wrong = typed && !(lab[0] >= 10 && lab[0] <= 95 && Math.abs(lab[1]) < 70 && Math.abs(lab[2]) < 70);
  const tonesNow: readonly SealerTone[] = SEALER_TONES.map((t, i) => ({ ...t, scatter: tints[i]! }));
  const mix = useShade(film, wrong ? null : lab, tints);
  const cameOut = numberIn(trial);
  const learn = () => {
    const parts = tonesNow.map((t) => mix?.parts.find((p) => p.name === t.name)?.parts ?? 0);
    const learned = learnTint(film, tonesNow, 1, parts, cameOut);
    const next = learned.map((t) => t.scatter);
    localStorage.setItem(STORED, JSON.stringify(next));
    setTints(next);
    setTrial('');
  };
  const exposures = mix && lab ? exposuresByAngle([[lab], [mix.lab]]) : [1];
  const inUse = mix !== null && JSON.stringify(shade) === JSON.stringify(mix.parts);
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">It came out different?</Typography>
          <Typography>
            Draw it down, clear it, read it. What it says of the black tint’s strength is kept for this shop.
          </Typography>
          <Field
            label="L* it came out at"
            value={trial}
            onChange={(e) => setTrial(e.target.value)}
            error={trial.trim() && !(cameOut >= 5 && cameOut <= 98) ? 'Between 5 and 98.' : undefined}
            decimal
          />
          <Button
            variant="outlined"
            disabled={!mix?.parts.some((p) => p.name === 'black sealer') || !(cameOut >= 5 && cameOut <= 98)}
            onClick={learn}
          >
            Learn from it
          </Button>
          {tints[1] === SEALER_TONES[1]!.scatter ? null : (
            <Typography variant="body2">
              The black tints {(tints[1]! / SEALER_TONES[1]!.scatter).toFixed(2)} times as strongly as supposed.{' '}
              <Button
                variant="text"
                color="inherit"
                sx={{ p: 0, minHeight: 24, textDecoration: 'underline' }}
                onClick={() => {
                  localStorage.removeItem(STORED);
                  setTints(SEALER_TONES.map((t) => t.scatter));
                }}
              >
                Forget that
              </Button>
            </Typography>
          )}
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Red sealers hide weakly; check with a lamp of daylight quality that the shade is even. A screen is not a
            proof.
          </Typography>
        </>
      }
    >
      <Answer
        why={
          mix
            ? mix.off > 2
              ? 'That is as near as these sealers come; the rest is for the ground.'
              : 'By volume, before hardener and reducer; worked out for a hiding coat under clear.'
            : 'L* between 10 and 95, a* and b* under 70.'
        }
      >
        {mix
          ? `${mix.parts.map((p) => `${Number(p.parts.toFixed(1))} ${p.name.replace(' sealer', '')}`).join(' : ')}, off by ${mix.off.toFixed(1)}.`
          : 'Say which shade.'}
      </Answer>
      {tabs}
      <ShadeSteps values={values} typed={typed} groundId={groundId} setTyped={setTyped} setGroundId={setGroundId} />
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'flex-end', mt: 1.5, maxWidth: 560 }}>
        <ToggleButton
          value="own"
          selected={typed !== null}
          onChange={() => setTyped(typed ? null : [String(lab[0]), String(lab[1]), String(lab[2])])}
        >
          Another shade
        </ToggleButton>
        {typed
          ? (['L*', 'a*', 'b*'] as const).map((axis, i) => (
              <Field
                key={axis}
                label={axis}
                value={typed[i]}
                onChange={(e) => setTyped(withAxis(typed, i, e.target.value))}
                error={wrong ? ' ' : undefined}
                decimal
              />
            ))
          : null}
      </Box>
      <ShadeMixed mix={mix} lab={lab} exposures={exposures} inUse={inUse} onUse={onUse} shade={shade} />
    </Bench>
  );
}

interface ShadeStepsProps {
  readonly values: GroundMaterial[];
  readonly typed: Typed | null;
  readonly groundId: string;
  readonly setTyped: Dispatch<SetStateAction<Typed | null>>;
  readonly setGroundId: Dispatch<SetStateAction<string>>;
}

/** Grey steps to choose a shade from. */
function ShadeSteps({ values, typed, groundId, setTyped, setGroundId }: ShadeStepsProps) {
  const { tones } = useTheme();
  return (
    <Box role="radiogroup" aria-label="Wanted shade" sx={{ display: 'flex', mt: 1.5, maxWidth: 760 }}>
      {values.map((g) => (
        <Box
          key={g.id}
          component="button"
          role="radio"
          aria-checked={!typed && g.id === groundId}
          onClick={() => {
            setTyped(null);
            setGroundId(g.id);
          }}
          sx={{
            flex: 1,
            height: 84,
            border: 0,
            font: 'inherit',
            fontSize: 16,
            cursor: 'pointer',
            background: cssOf(g.lab),
            color: inkOn(g.lab),
            outline: !typed && g.id === groundId ? `4px solid ${tones.pick}` : 'none',
            outlineOffset: -4,
            '&:focus-visible': { outline: `3px solid ${tones.ink}`, outlineOffset: -3 },
          }}
        >
          {g.mark}
        </Box>
      ))}
    </Box>
  );
}

interface ShadeMixedProps {
  readonly mix: ReturnType<typeof useShade>;
  readonly lab: Lab | null;
  readonly exposures: number[];
  readonly inUse: boolean;
  readonly onUse: (parts: readonly { readonly name: string; readonly parts: number }[]) => void;
  readonly shade: readonly { readonly name: string; readonly parts: number }[];
}

/** The shade that is wanted and the one that comes out. */
function ShadeMixed({ mix, lab, exposures, inUse, onUse, shade }: ShadeMixedProps) {
  return mix && lab ? (
    <>
      <Typography variant="body2" sx={{ mt: 2 }}>
        wanted above, mixed below
      </Typography>
      <Box role="img" aria-label={`Wanted over mixed, dE00 ${mix.off.toFixed(1)}`} sx={{ maxWidth: 760, height: 150 }}>
        <Box sx={{ height: '50%', background: cssOf(lab, exposures[0]) }} />
        <Box sx={{ height: '50%', background: cssOf(mix.lab, exposures[0]) }} />
      </Box>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', mt: 1.5 }}>
        <Box sx={{ fontFamily: FIGURES, fontSize: 20 }}>
          {mix.parts.map((p) => (
            <Box key={p.name}>
              {Number(p.parts.toFixed(1))} {p.name}
            </Box>
          ))}
        </Box>
        <Button variant="contained" disabled={inUse} onClick={() => onUse(mix.parts)}>
          {inUse ? 'In the sealer’s batch' : 'Use it for the sealer'}
        </Button>
        {shade.length ? (
          <Button variant="outlined" onClick={() => onUse([])}>
            Plain sealer again
          </Button>
        ) : null}
      </Box>
    </>
  ) : null;
}
