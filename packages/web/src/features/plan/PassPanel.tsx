import { Box, Button, Slider, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { passSettingsSchema, type PassSettings } from '@steady-gleam/contracts';
import { STRIPES_SEEN, type FanProfile, type PassSetup } from '@steady-gleam/core';
import { useState, type ReactNode } from 'react';
import { ValidationError } from 'yup';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { FlopStrip } from '../../shared/FlopStrip';
import { MeasureField } from '../../shared/MeasureField';
import { MeasureListField } from '../../shared/MeasureListField';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';
import { useRested } from '../../shared/useRested';
import { useCompute } from '../../worker/useCompute';
import type { PlanPanelProps } from './PlanPage';
import { StripePicture } from './StripePicture';

/** Scatter from pass to pass; ours. */
const HANDS = {
  steady: { speedSd: 0.015, distanceSd: 0.01, aimSdCm: 0.2 },
  usual: { speedSd: 0.04, distanceSd: 0.03, aimSdCm: 0.5 },
  unsteady: { speedSd: 0.12, distanceSd: 0.08, aimSdCm: 1.5 },
} as const;
const VIEWS = [
  [0, 'face, 15°'],
  [2, '45°'],
  [4, 'flop, 110°'],
] as const;

/** Pass pictures: what stripes the gun, the overlap and the hand leave in this stack, and the cheapest way out of them. */
export function PassPanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const units = useUnits();
  const { job } = detail;
  const [of, setOf] = useState<'effect' | 'ground'>('effect');
  const effects = work.plan.rows.flatMap(({ coat: c }) => (c.kind === 'effect' && c.counted ? [c] : []));
  const grounds = work.plan.rows.flatMap(({ coat: c }) => (c.kind === 'ground' && c.counted ? [c] : []));
  // Without an effect there is only the ground to look at.
  const looked = effects.length ? of : 'ground';
  const films = looked === 'ground' ? grounds : effects;
  const start: PassSettings = {
    profile: 'bell',
    fanCm: work.gun.fanCm,
    overlap: films[0]?.overlap ?? 0.5,
    shift: 0,
    cross: false,
    marginCm: 5,
    panels: [120],
    walk: true,
    heightCm: 70,
    ...HANDS.usual,
  };
  const s = plan.passes ?? start;
  const [typed, setTyped] = useState<Partial<Record<'fanCm' | 'heightCm', string>>>({});
  const [fault, setFault] = useState<Record<string, string>>({});
  const [chosen, setView] = useState<0 | 2 | 4 | null>(null);
  const [coatCount, setCoatCount] = useState<'all' | 'one'>('all');
  const change = (more: Partial<PassSettings>) => {
    try {
      const passes = passSettingsSchema.validateSync({ ...s, ...more }, { abortEarly: false });
      setFault({});
      set({ passes });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFault(Object.fromEntries(error.inner.map((e) => [(e.path ?? '').replace(/\[\d+\]/, ''), e.message])));
    }
  };
  const coats = coatCount === 'one' ? films.slice(0, 1).map((c) => c.film) : films.map((c) => c.film);
  const setup: PassSetup = {
    ...s,
    plateau: 0.5,
    coats: coats.length ? coats : [1],
    seed: 7,
    // Mist coats can't be laid as mist coats once more.
    split: !(looked === 'effect' && plan.school === 'mist'),
  };
  const rested = useRested(setup, 60);
  const { layers } = work.plan;
  const { value: look, error } = useCompute(JSON.stringify(['stripes', layers, job.systemId, rested, looked]), (c) =>
    c.stripes(layers, job.systemId, rested, looked),
  );
  const worst = look ? Math.max(look.face, look.flop) : null;
  // Until another is chosen the picture shows the angle at which the stripes are worst.
  const view = chosen ?? (look && look.flop > look.face ? 4 : 0);
  const seen = worst !== null && worst > STRIPES_SEEN;
  const where = look && look.flop >= look.face ? 'in the flop' : 'at the face';
  const hand = (Object.keys(HANDS) as (keyof typeof HANDS)[]).find((h) => HANDS[h].speedSd === s.speedSd);
  const toggles = <T extends string>(
    label: string,
    value: T | undefined,
    choices: Record<T, string>,
    on: (v: T) => void,
  ): ReactNode => (
    <Box>
      <Typography variant="h3" component="div" sx={{ mb: 0.5 }}>
        {label}
      </Typography>
      <ToggleButtonGroup exclusive value={value} aria-label={label} onChange={(_, v: T | null) => v && on(v)}>
        {(Object.entries(choices) as [T, string][]).map(([id, name]) => (
          <ToggleButton key={id} value={id} sx={{ px: 1.25 }}>
            {name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Box>
  );
  const atFilm = (film: number) =>
    look ? look.lut[Math.round(((film - look.from) / (look.to - look.from)) * (look.lut.length - 1))]! : [];
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Crest over trough</Typography>
          {look ? (
            <>
              <FlopStrip
                angles={[15, 25, 45, 75, 110]}
                target={atFilm(look.crest)}
                sample={atFilm(look.trough)}
                height={110}
                label="Where most lies over where least lies, from face to flop"
              />
              <Typography>
                From {look.trough.toFixed(2)} to {look.crest.toFixed(2)} coats. In the middle of fifteen panels dE00{' '}
                {look.face.toFixed(1)} at the face, {look.flop.toFixed(1)} in the flop, from {look.spread[0].toFixed(1)}{' '}
                to {look.spread[1].toFixed(1)} by luck; {STRIPES_SEEN} is seen.
              </Typography>
              {look.change ? (
                <>
                  <Typography variant="h2">Cheapest way out</Typography>
                  <Typography>
                    {look.change.name.charAt(0).toUpperCase() + look.change.name.slice(1)}: {worst!.toFixed(1)} becomes{' '}
                    {look.change.worst.toFixed(1)} ({look.change.spread[0].toFixed(1)} to{' '}
                    {look.change.spread[1].toFixed(1)})
                    {look.change.hides ? ', not seen.' : '; the most that one change does.'}
                  </Typography>
                  {look.change.setup.coats.length === setup.coats.length || looked === 'ground' ? (
                    <Button
                      variant="contained"
                      onClick={() => {
                        const { overlap, shift, cross, walk } = look.change!.setup;
                        change({ overlap, shift, cross, walk });
                      }}
                    >
                      Do that
                    </Button>
                  ) : (
                    <Button
                      variant="contained"
                      onClick={() => set({ school: 'mist', passes: { ...s, overlap: 0.8, shift: 0.5 } })}
                    >
                      Lay it in mist coats
                    </Button>
                  )}
                </>
              ) : seen ? (
                <Typography>A steadier pass is what is left: slower practice on a spare panel.</Typography>
              ) : null}
            </>
          ) : error ? (
            <Typography role="alert">{error}</Typography>
          ) : (
            <Typography>Spraying it …</Typography>
          )}
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Stripes under dye can’t be polished out; the ground can’t be mended once the effect is on. A screen is not a
            proof.
          </Typography>
        </>
      }
    >
      <Answer
        why={`${films.length} ${looked} ${films.length === 1 ? 'coat' : 'coats'} by ${hand === 'unsteady' ? 'an' : 'a'} ${hand ?? 'measured'} hand, ${Math.round(s.overlap * 100)} % overlap${s.shift ? ', every second half a pass further' : ''}${s.cross ? ', crossed' : ''}${s.panels.length > 1 ? (s.walk ? ', the side walked' : ', panel by panel') : ''}.`}
      >
        {worst === null
          ? 'Spraying it …'
          : seen
            ? `Stripes will be seen ${where}: ${worst.toFixed(1)} from crest to trough.`
            : `No stripes will be seen: ${worst.toFixed(1)} from crest to trough.`}
      </Answer>
      {tabs}
      <Box>
        {look ? (
          <StripePicture
            look={look}
            angle={view}
            height={270}
            label={`The panel at ${VIEWS.find((v) => v[0] === view)![1]}`}
          />
        ) : (
          <Box sx={{ height: 270 }} />
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, mt: 1, flexWrap: 'wrap', alignItems: 'flex-end' }}>
        {toggles('Seen at', String(view) as '0' | '2' | '4', { 0: 'face, 15°', 2: '45°', 4: 'flop, 110°' }, (v) =>
          setView(Number(v) as 0 | 2 | 4),
        )}
        {effects.length && grounds.length
          ? toggles('Layer', looked, { effect: 'effect', ground: 'ground under it' }, setOf)
          : null}
        {toggles('Sprayed', coatCount, { one: 'one coat', all: 'all coats' }, setCoatCount)}
        {toggles<FanProfile>(
          'Fan',
          s.profile,
          { bell: 'bell', elliptical: 'elliptical', flat: 'flat-topped' },
          (profile) => change({ profile }),
        )}
        {toggles('Hand', hand, { steady: 'steady', usual: 'usual', unsteady: 'unsteady' }, (h) => change(HANDS[h]))}
        {toggles(
          'Coats',
          s.cross ? 'cross' : s.shift ? 'shift' : 'same',
          { same: 'same lines', shift: 'half a pass further', cross: 'crossed' },
          (v) => change({ shift: v === 'shift' ? 0.5 : 0, cross: v === 'cross' }),
        )}
        {toggles('Side', s.walk ? 'walk' : 'panel', { walk: 'walked', panel: 'panel by panel' }, (v) =>
          change({ walk: v === 'walk' }),
        )}
        <Box sx={{ width: 180 }}>
          <Typography variant="h3" component="div" id="overlap-label">
            Overlap {Math.round(s.overlap * 100)} %
          </Typography>
          <Slider
            aria-labelledby="overlap-label"
            min={0.2}
            max={0.85}
            step={0.05}
            value={s.overlap}
            onChange={(_, v) => change({ overlap: v as number })}
          />
        </Box>
        <Box sx={{ width: 180 }}>
          <Typography variant="h3" component="div" id="margin-label">
            Trigger{' '}
            {s.marginCm >= 0
              ? `${units.say('distance', s.marginCm)} past`
              : `${units.say('distance', -s.marginCm)} before`}{' '}
            the edge
          </Typography>
          <Slider
            aria-labelledby="margin-label"
            min={-6}
            max={15}
            step={1}
            value={s.marginCm}
            onChange={(_, v) => change({ marginCm: v as number })}
          />
        </Box>
        <Box sx={{ width: 140 }}>
          <MeasureListField
            measure="distance"
            label="Panels in a row"
            value={s.panels}
            onValue={(panels) => change({ panels })}
            error={fault['panels']}
          />
        </Box>
        {(['fanCm', 'heightCm'] as const).map((key) => (
          <Box key={key} sx={{ width: 104 }}>
            <MeasureField
              measure="distance"
              label={key === 'fanCm' ? 'Fan' : 'Height'}
              value={typed[key] ?? String(s[key])}
              onValue={(v) => {
                setTyped({ ...typed, [key]: v });
                change({ [key]: numberIn(v) });
              }}
              error={fault[key]}
            />
          </Box>
        ))}
      </Box>
    </Bench>
  );
}
