import { type ReactNode, useMemo, useState, type Dispatch, type SetStateAction } from 'react';
import type { BlendAnswer } from '@steady-gleam/core/looks';
import { Box, Typography } from '@mui/material';
import { type BlendSettings, blendSettingsSchema } from '@steady-gleam/contracts';
import { STYLES, type StackLayer } from '@steady-gleam/core/finishes';
import type { Library } from '@steady-gleam/core/materials';
import { halosOf, SLOPE_UNSEEN, steppedLayers, type BlendLayer } from '@steady-gleam/core/spraying';
import { checkWith } from '../../shared/checkWith';
import { numberIn } from '../../shared/numberIn';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { targetOf } from '../../shared/jobModel';
import { MeasureField } from '../../ui/MeasureField';
import { MeasureListField } from '../../shared/MeasureListField';
import { useUnits } from '../../shared/units';
import { useCompute } from '../../worker/useCompute';
import { BlendAdvice, LayBlend } from './BlendAdvice';
import { BlendChart, BlendPicture } from './BlendPictures';
import type { PlanPanelProps } from './planPanel';

/** Where each layer ends on the panel, what is seen of that along it, and the shortest blend that is not seen. */
export function BlendPanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const { job } = detail;
  const target = useMemo(() => targetOf(detail.target, detail), [detail]);
  const base = blendLayers(work.plan.layers, work.library, job.mixId);
  const kept = plan.blend ?? usualBlend(base);
  const stepped = steppedLayers(base, kept.repairCm, 15, 12);
  const layers = base.map((l, i) => ({
    ...l,
    ...(kept.layers.find((k) => k.id === l.id) ?? stepped[i]!),
    name: l.name,
  }));
  const length = kept.panels.reduce((a, b) => a + b, 0) - kept.atCm;
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [angle, setAngle] = useState<number | null>(null);
  const setBlend = (more: Partial<BlendSettings>, name?: string) => {
    const found = checkWith(blendSettingsSchema, {
      ...kept,
      layers: layers.map(({ id, reachCm, fadeCm }) => ({ id, reachCm, fadeCm })),
      ...more,
    });
    const [path, said] = found.ok
      ? found.value.panels.reduce((a, b) => a + b, 0) <= found.value.atCm + 5
        ? ['atCm', 'The repair lies on the panels; put it further left.']
        : []
      : Object.entries(found.faults)[0]!;
    setFaults(path === undefined ? {} : { [name ?? path]: said! });
    if (found.ok && path === undefined) set({ blend: found.value });
  };
  const key = JSON.stringify(['blend', work.plan.layers, target, layers, kept.repairCm, length]);
  const { value, error } = useCompute(length > 5 ? key : null, (c) =>
    c.blend({
      layers: work.plan.layers,
      mixId: job.mixId,
      target,
      blend: layers,
      repairCm: kept.repairCm,
      lengthCm: Math.min(600, length),
    }),
  );
  const halos = halosOf(layers);
  const taken =
    value?.suggestion?.layers.every((l, i) => l.reachCm === layers[i]?.reachCm && l.fadeCm === layers[i]?.fadeCm) ??
    false;
  const unseen = value !== null && value.profile.steepest <= SLOPE_UNSEEN;
  const breaks = kept.panels
    .slice(0, -1)
    .map((_, i) => kept.panels.slice(0, i + 1).reduce((a, b) => a + b, 0) - kept.atCm);
  const shown = angle ?? (value ? value.angles.at(-1)! : 110);
  const field = (name: string, label: string, metric: number, keep: (v: number) => void) => (
    <MeasureField
      key={name}
      measure="distance"
      label={label}
      value={typed[name] ?? String(metric)}
      onValue={(v) => {
        setTyped((old) => ({ ...old, [name]: v }));
        keep(numberIn(v));
      }}
      error={faults[name]}
    />
  );
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Reaches, from the middle of the repair</Typography>
          {layers.map((l, i) => (
            <ReachRow key={l.id} l={l} field={field} setBlend={setBlend} layers={layers} i={i} />
          ))}
          <BlendAdvice
            value={value}
            isTaken={taken}
            isFine={unseen && !halos.length}
            lengthCm={length}
            hasBreaks={breaks.length > 0}
            onTake={(taken) => {
              setTyped({});
              setBlend({ layers: taken });
            }}
          />
          <LayBlend layers={layers} work={work} plan={plan} set={set} />
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Angle the gun toward the repair; in light silvers keep the second clear off the blend’s end. Check the tail
            before clear.
          </Typography>
        </>
      }
    >
      <BlendSays value={value} layers={layers} length={length} />
      {tabs}
      {error ? <Typography role="alert">{error}</Typography> : null}
      <BlendPicture value={value} shown={shown} layers={layers} breaks={breaks} atCm={kept.atCm} lengthCm={length} />
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        the finish that is there above, the blend below, touching, at {shown}°; circle: the repair; dashed: breaks
      </Typography>
      <BlendAngles
        value={value}
        shown={shown}
        breaks={breaks}
        length={length}
        setAngle={setAngle}
        field={field}
        kept={kept}
        setBlend={setBlend}
      />
      <Box sx={{ maxWidth: 420 }}>
        <MeasureListField
          measure="distance"
          label="Panels in a row"
          hint="Breaks lie between them."
          value={kept.panels}
          onValue={(panels) => setBlend({ panels }, 'panels')}
          error={faults['panels']}
        />
      </Box>
    </Bench>
  );
}

/** A blend as it begins: two panels, a hand's width of repair, every layer a step beyond the one below. */
const usualBlend = (base: readonly BlendLayer[]): BlendSettings => ({
  ...{ panels: [110, 90], repairCm: 12, atCm: 25 },
  layers: steppedLayers(base, 12, 15, 12).map(({ id, reachCm, fadeCm }) => ({ id, reachCm, fadeCm })),
});

/** Layers of a blend before they reach anywhere: each effect coat by itself, ground and clear as one. */
function blendLayers(layers: readonly StackLayer[], library: Library, mixId: string): BlendLayer[] {
  const grounds = new Set(layers.flatMap((l) => (l.kind === 'ground' ? [l.materialId] : [])));
  return layers.flatMap((l): BlendLayer[] => {
    const ground = library.grounds.find((g) => g.id === l.materialId)?.name ?? 'ground';
    const name = l.kind === 'ground' ? (grounds.size > 1 ? ground : 'ground') : l.kind === 'clear' ? 'clear' : 'effect';
    if (l.kind === 'ground' || l.kind === 'clear')
      return [{ id: l.id, name, kind: l.kind, film: l.coats * STYLES[l.style].film, reachCm: 0, fadeCm: 0 }];
    if (l.kind !== 'effect' || l.materialId !== mixId) return [];
    const n = Math.max(1, Math.ceil(l.coats));
    return Array.from({ length: n }, (_, i) => ({
      id: `${l.id}/${i}`,
      name: l.style === 'control' ? 'control coat' : `effect ${i + 1}`,
      kind: 'effect' as const,
      film: (l.coats * STYLES[l.style].film) / n,
      reachCm: 0,
      fadeCm: 0,
    }));
  });
}

interface ReachRowProps {
  readonly l: BlendLayer;
  readonly field: (name: string, label: string, metric: number, keep: (v: number) => void) => ReactNode;
  readonly setBlend: (more: Partial<BlendSettings>, name?: string) => void;
  readonly layers: readonly BlendLayer[];
  readonly i: number;
}

/** How far a layer reaches and fades. */
function ReachRow({ l, field, setBlend, layers, i }: ReachRowProps) {
  return (
    <Box
      role="group"
      aria-label={`Reach of ${l.name}`}
      sx={{ display: 'grid', gridTemplateColumns: '76px 1fr 1fr', gap: 1, alignItems: 'end' }}
    >
      <Typography variant="h3" component="span" sx={{ pb: 1.5 }}>
        {l.name}
      </Typography>
      {(['reachCm', 'fadeCm'] as const).map((k) =>
        field(`${l.id}.${k}`, k === 'reachCm' ? 'Ends at' : 'Fades over', l[k], (v) =>
          setBlend(
            {
              layers: layers.map((o, j) => ({
                id: o.id,
                reachCm: o.reachCm,
                fadeCm: o.fadeCm,
                ...(j === i ? { [k]: v } : {}),
              })),
            },
            `${l.id}.${k}`,
          ),
        ),
      )}
    </Box>
  );
}

interface BlendAnglesProps {
  readonly value: BlendAnswer | null;
  readonly shown: number;
  readonly breaks: number[];
  readonly length: number;
  readonly setAngle: Dispatch<SetStateAction<number | null>>;
  readonly field: (name: string, label: string, metric: number, keep: (v: number) => void) => ReactNode;
  readonly kept: BlendSettings;
  readonly setBlend: (more: Partial<BlendSettings>, name?: string) => void;
}

/** Which angle is shown, and the length of the panel. */
function BlendAngles({ value, shown, breaks, length, setAngle, field, kept, setBlend }: BlendAnglesProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 210px', gap: 2, mt: 1 }}>
      <Box
        role="img"
        aria-label="Difference to the existing finish along the panel, one line an angle"
        sx={{ height: 190 }}
      >
        <BlendChart value={value} shown={shown} breaks={breaks} lengthCm={length} />
      </Box>
      <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1 }}>
        <Field label="Seen at" select value={String(shown)} onChange={(e) => setAngle(Number(e.target.value))}>
          {(value?.angles ?? [110]).map((a) => (
            <option key={a} value={a}>
              {a}°
            </option>
          ))}
        </Field>
        {field('repairCm', 'Repair, half its width', kept.repairCm, (repairCm) => setBlend({ repairCm }, 'repairCm'))}
        {field('atCm', 'From the left edge', kept.atCm, (atCm) => setBlend({ atCm }, 'atCm'))}
      </Box>
    </Box>
  );
}

interface BlendSaysProps {
  readonly value: BlendAnswer | null;
  readonly layers: readonly BlendLayer[];
  /** From the repair to the end of the panels, cm. */
  readonly length: number;
}

/** Whether the blend will be seen, and where it would be. */
function BlendSays({ value, layers, length }: BlendSaysProps) {
  const units = useUnits();
  const halos = halosOf(layers);
  const most = Math.max(...layers.map((l) => l.reachCm));
  const short = most > length;
  const unseen = value !== null && value.profile.steepest <= SLOPE_UNSEEN;
  return (
    <Answer
      why={
        halos.length
          ? `${halos[0]!.lower.name} reaches ${units.say('distance', halos[0]!.byCm)} past ${halos[0]!.upper.name}: its edge shows as a halo. Each layer ends beyond the one below it.`
          : short
            ? `The last layer ends at ${units.say('distance', most)}, the panels after ${units.say('distance', length)}. Shorten the fades, or spray edge to edge to the break.`
            : value
              ? `Steepest ${units.say('distance', value.profile.steepestAt)} from the repair; up to ${SLOPE_UNSEEN} over ${units.say('distance', 10)} goes unseen.${value.guessed ? ' The finish there was not read; it is taken as this stack.' : ''}`
              : undefined
      }
    >
      {halos.length
        ? 'A halo would show.'
        : short
          ? 'The panels are too short for this blend.'
          : value === null
            ? 'Working out the blend …'
            : unseen
              ? `The blend will not be seen: ${value.profile.steepest.toFixed(1)} over ${units.say('distance', 10)} at most.`
              : `The blend will be seen: ${value.profile.steepest.toFixed(1)} over ${units.say('distance', 10)}.`}
    </Answer>
  );
}
