import { Box } from '@mui/material';
import { type PassSettings, passSettingsSchema } from '@steady-gleam/contracts';
import { STRIPES_SEEN, type PassSetup } from '@steady-gleam/core/spraying';
import { useState } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { checkWith, type Faults } from '../../shared/checkWith';
import { useRested } from '../../shared/useRested';
import { useCompute } from '../../worker/useCompute';
import type { PlanPanelProps } from './planPanel';
import { HANDS, handOf, PassControls } from './PassControls';
import { StripePicture } from './StripePicture';
import { StripeSide } from './StripeSide';

const VIEWS = [
  [0, 'face, 15°'],
  [2, '45°'],
  [4, 'flop, 110°'],
] as const;

/** Pass pictures: what stripes the gun, the overlap and the hand leave in this stack, and the cheapest way out of them. */
export function PassPanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
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
  const [fault, setFault] = useState<Faults>({});
  const [chosen, setView] = useState<0 | 2 | 4 | null>(null);
  const [coatCount, setCoatCount] = useState<'all' | 'one'>('all');
  const change = (more: Partial<PassSettings>) => {
    // A list of panels is typed in one field.
    const found = checkWith(passSettingsSchema, { ...s, ...more }, (path) => path.replace(/\[\d+\]/, ''));
    setFault(found.ok ? {} : found.faults);
    if (found.ok) set({ passes: found.value });
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
  const { value: look, error } = useCompute(JSON.stringify(['stripes', layers, job.mixId, rested, looked]), (c) =>
    c.stripes(layers, job.mixId, rested, looked),
  );
  const worst = look ? Math.max(look.face, look.flop) : null;
  // Until another is chosen the picture shows the angle at which the stripes are worst.
  const view = chosen ?? (look && look.flop > look.face ? 4 : 0);
  const seen = worst !== null && worst > STRIPES_SEEN;
  const where = look && look.flop >= look.face ? 'in the flop' : 'at the face';
  const hand = handOf(s);
  return (
    <Bench
      side={
        <StripeSide
          look={look}
          error={error}
          worst={worst}
          isGround={looked === 'ground'}
          coats={setup.coats.length}
          onPasses={change}
          onMist={() => set({ school: 'mist', passes: { ...s, overlap: 0.8, shift: 0.5 } })}
        />
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
      <PassControls
        settings={s}
        change={change}
        faults={fault}
        view={view}
        onView={setView}
        of={effects.length && grounds.length ? looked : null}
        onOf={setOf}
        coatCount={coatCount}
        onCoatCount={setCoatCount}
      />
    </Bench>
  );
}
