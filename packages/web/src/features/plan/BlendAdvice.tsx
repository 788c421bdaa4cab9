import { Button, Typography } from '@mui/material';
import type { BlendSettings, SprayPlan } from '@steady-gleam/contracts';
import type { CellEdit } from '@steady-gleam/core/jobs';
import type { BlendLayer } from '@steady-gleam/core/spraying';
import { useState } from 'react';
import { Field } from '../../ui/Field';
import type { JobWorked } from '../../shared/useJobWork';
import { useUnits } from '../../shared/units';
import type { BlendAnswer } from '@steady-gleam/core/looks';
import { withEdit } from './cellModel';

/** The shortest blend that is not seen, or that none is. */
export function BlendAdvice({
  value,
  isTaken: taken,
  isFine,
  lengthCm: length,
  hasBreaks,
  onTake,
}: {
  value: BlendAnswer | null;
  isTaken: boolean;
  /** The blend as it is now goes unseen. */
  isFine: boolean;
  lengthCm: number;
  hasBreaks: boolean;
  onTake: (layers: BlendSettings['layers']) => void;
}) {
  const units = useUnits();
  return (
    <>
      {value?.suggestion ? (
        <Button
          variant={isFine ? 'outlined' : 'contained'}
          disabled={taken}
          onClick={() => onTake(value.suggestion!.layers.map(({ id, reachCm, fadeCm }) => ({ id, reachCm, fadeCm })))}
        >
          {value.suggestion.unseen ? 'Take the shortest unseen' : 'Take the softest'}:{' '}
          {units.say('distance', value.suggestion.needsCm)}
        </Button>
      ) : null}
      {value && !value.suggestion?.unseen ? (
        <Typography>
          No blend in {units.say('distance', length)} stays unseen
          {value.suggestion
            ? `: the softest changes ${value.suggestion.steepest.toFixed(1)} over ${units.say('distance', 10)}`
            : ''}
          . Better spray edge to edge, to the next {hasBreaks ? 'break' : 'gap'}.
        </Typography>
      ) : null}
    </>
  );
}

/** A blend as the cells of one area: ground and effect end where they were drawn, each coat a step beyond the one below. */
export function blendCells(layers: readonly BlendLayer[], ids: readonly string[], areaId: string): CellEdit[] {
  return ids.flatMap((layerId): CellEdit[] => {
    const own = layers.filter((l) => (l.id === layerId || l.id.startsWith(`${layerId}/`)) && l.kind !== 'clear');
    const [first, last] = [own[0], own.at(-1)];
    if (!first || !last) return [];
    const stepCm = own.length > 1 ? (last.reachCm - first.reachCm) / (own.length - 1) : 0;
    return [
      {
        areaId,
        layerId,
        coats: null,
        reach: {
          kind: 'blend',
          endCm: last.reachCm,
          fadeCm: last.fadeCm,
          stepCm: Math.max(0, stepCm),
          from: 'the repair',
        },
      },
    ];
  });
}

/** Takes the blend into the plan: the cells of one area follow it. */
export function LayBlend({
  layers,
  work,
  plan,
  set,
}: {
  layers: readonly BlendLayer[];
  work: JobWorked;
  plan: SprayPlan;
  set: (more: Partial<SprayPlan>) => void;
}) {
  const units = useUnits();
  const areas = work.plan.areas.filter((a) => a.on === null);
  const [picked, setPicked] = useState('');
  const area = areas.find((a) => a.id === picked) ?? areas[0];
  if (!area) return null;
  const cells = blendCells(
    layers,
    work.plan.layers.flatMap((l) => (l.finishId === area.finishId ? [l.id] : [])),
    area.id,
  );
  const most = Math.max(0, ...cells.map((c) => (c.reach?.kind === 'blend' ? c.reach.endCm : 0)));
  const fits = most <= area.lengthCm;
  const isIn = cells.every((c) =>
    plan.cells.some((e) => JSON.stringify(e) === JSON.stringify({ ...c, coats: e.coats })),
  );
  return (
    <>
      {areas.length > 1 ? (
        <Field label="Laid on" select value={area.id} onChange={(e) => setPicked(e.target.value)}>
          {areas.map((a) => (
            <option key={a.id} value={a.id}>
              {a.name}
            </option>
          ))}
        </Field>
      ) : null}
      <Button
        variant="outlined"
        disabled={!fits || isIn}
        onClick={() => set({ cells: cells.reduce((list, c) => withEdit(list, c, c), [...plan.cells]) })}
      >
        {isIn ? `${area.name} is planned so` : `Lay it so on ${area.name}`}
      </Button>
      {fits ? null : (
        <Typography variant="body2">
          {area.name} is {units.say('distance', area.lengthCm)} long: the blend ends {units.say('distance', most)} from
          the repair. Shorten it, or lay it to the edge.
        </Typography>
      )}
    </>
  );
}
