import { Box, Button, Typography, useTheme } from '@mui/material';
import { blendSettingsSchema, type BlendSettings } from '@steady-gleam/contracts';
import { halosOf, SLOPE_UNSEEN, steppedLayers, STYLES, toShown, type BlendLayer } from '@steady-gleam/core';
import { useMemo, useState } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { ValidationError } from 'yup';
import { FIGURES } from '../../app/theme';
import { numberIn } from '../../shared/numberIn';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../shared/Field';
import { targetOf } from '../../shared/jobModel';
import { MeasureField } from '../../shared/MeasureField';
import { MeasureListField } from '../../shared/MeasureListField';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import { useUnits } from '../../shared/units';
import { useCompute } from '../../worker/useCompute';
import type { PlanPanelProps } from './PlanPage';

const DASH = ['', '9 4', '4 4', '2 4', '10 3 2 3'];

/** Where each layer ends on the panel, what is seen of that along it, and the shortest blend that is not seen. */
export function BlendPanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job } = detail;
  const target = useMemo(() => targetOf(detail.target), [detail.target]);
  // Each effect coat has its own reach; ground and clear go as one.
  const grounds = new Set(work.plan.layers.flatMap((l) => (l.kind === 'ground' ? [l.materialId] : [])));
  const base: BlendLayer[] = work.plan.layers.flatMap((l): BlendLayer[] => {
    const ground = work.library.grounds.find((g) => g.id === l.materialId)?.name ?? 'ground';
    const name = l.kind === 'ground' ? (grounds.size > 1 ? ground : 'ground') : l.kind === 'clear' ? 'clear' : 'effect';
    if (l.kind === 'ground' || l.kind === 'clear')
      return [{ id: l.id, name, kind: l.kind, film: l.coats * STYLES[l.style].film, reachCm: 0, fadeCm: 0 }];
    if (l.kind !== 'effect' || l.materialId !== job.systemId) return [];
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
  const usual: BlendSettings = {
    panels: [110, 90],
    repairCm: 12,
    atCm: 25,
    layers: steppedLayers(base, 12, 15, 12).map(({ id, reachCm, fadeCm }) => ({ id, reachCm, fadeCm })),
  };
  const kept = plan.blend ?? usual;
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
    try {
      const blend = blendSettingsSchema.validateSync(
        { ...kept, layers: layers.map(({ id, reachCm, fadeCm }) => ({ id, reachCm, fadeCm })), ...more },
        { abortEarly: false },
      );
      if (blend.panels.reduce((a, b) => a + b, 0) <= blend.atCm + 5)
        throw new ValidationError('The repair lies on the panels; put it further left.', null, 'atCm');
      setFaults({});
      set({ blend });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFaults({ [name ?? error.inner[0]?.path ?? error.path ?? '']: error.inner[0]?.message ?? error.message });
    }
  };
  const key = JSON.stringify(['blend', work.plan.layers, target, layers, kept.repairCm, length]);
  const { value, error } = useCompute(length > 5 ? key : null, (c) =>
    c.blend(work.plan.layers, job.systemId, target, layers, kept.repairCm, Math.min(600, length)),
  );
  const halos = halosOf(layers);
  const taken =
    value?.suggestion?.layers.every((l, i) => l.reachCm === layers[i]?.reachCm && l.fadeCm === layers[i]?.fadeCm) ??
    false;
  const most = Math.max(...layers.map((l) => l.reachCm));
  const short = most > length;
  const unseen = value !== null && value.profile.steepest <= SLOPE_UNSEEN;
  const breaks = kept.panels
    .slice(0, -1)
    .map((_, i) => kept.panels.slice(0, i + 1).reduce((a, b) => a + b, 0) - kept.atCm);
  const shown = angle ?? (value ? value.angles.at(-1)! : 110);
  const column = value ? Math.max(0, value.angles.indexOf(shown)) : 0;
  const exposures = value ? exposuresByAngle([value.existing, ...value.profile.looks]) : [];
  const x = (cm: number) => ((cm + kept.atCm) / (length + kept.atCm)) * 800;
  const rows = value
    ? value.profile.places.map((at, i) =>
        Object.fromEntries([['at', at], ...value.angles.map((a, g) => [`a${a}`, value.profile.differences[g]![i]])]),
      )
    : [];
  // Ticks are round in the units that are shown.
  const perUnit = toShown('distance', 1, units.system);
  const tick = [5, 10, 20, 25, 50, 100, 200].find((step) => (length * perUnit) / step <= 6) ?? 500;
  const ticks = Array.from({ length: Math.floor((length * perUnit) / tick) + 1 }, (_, i) => (i * tick) / perUnit);
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
            <Box
              key={l.id}
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
          ))}
          {value?.suggestion ? (
            <Button
              variant={unseen && !halos.length ? 'outlined' : 'contained'}
              disabled={taken}
              onClick={() => {
                setTyped({});
                setBlend({
                  layers: value.suggestion!.layers.map(({ id, reachCm, fadeCm }) => ({ id, reachCm, fadeCm })),
                });
              }}
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
              . Better spray edge to edge, to the next {breaks.length ? 'break' : 'gap'}.
            </Typography>
          ) : null}
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Angle the gun toward the repair; in light silvers keep the second clear off the blend’s end. Check the tail
            before clear.
          </Typography>
        </>
      }
    >
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
      {tabs}
      {error ? <Typography role="alert">{error}</Typography> : null}
      <svg
        viewBox="0 0 930 232"
        width="100%"
        role="img"
        aria-label={`Panels, repair and reaches: ${layers.map((l) => `${l.name} to ${units.say('distance', l.reachCm)}`).join(', ')}`}
      >
        {value
          ? value.profile.places.map((at, i) => {
              const w = x(at + 2) - x(at) + 1.2;
              return (
                <g key={at}>
                  <rect
                    x={x(at)}
                    y="0"
                    width={w}
                    height="62"
                    shapeRendering="crispEdges"
                    fill={cssOf(value.existing[column]!, exposures[column])}
                  />
                  <rect
                    x={x(at)}
                    y="62"
                    width={w}
                    height="62"
                    shapeRendering="crispEdges"
                    fill={cssOf(value.profile.looks[i]![column]!, exposures[column])}
                  />
                </g>
              );
            })
          : null}
        {value ? (
          <rect
            x="0"
            y="0"
            width={x(0)}
            height="62"
            shapeRendering="crispEdges"
            fill={cssOf(value.existing[column]!, exposures[column])}
          />
        ) : null}
        {value
          ? // The left side mirrors the right as far as the panel goes.
            value.profile.places
              .filter((at) => at > 0 && at < kept.atCm + 2)
              .map((at) => (
                <rect
                  key={-at}
                  x={x(-at)}
                  y="62"
                  width={x(2) - x(0) + 0.6}
                  height="62"
                  shapeRendering="crispEdges"
                  fill={cssOf(value.profile.looks[Math.round(at / 2)]![column]!, exposures[column])}
                />
              ))
          : null}
        {breaks.map((b) => (
          <line
            key={b}
            x1={x(b)}
            x2={x(b)}
            y1="0"
            y2="232"
            stroke={tones.ink}
            strokeWidth="2.5"
            strokeDasharray="7 4"
          />
        ))}
        {layers.map((l, i) => {
          const y = 136 + i * (92 / layers.length);
          const bad = halos.some((h) => h.lower.id === l.id);
          return (
            <g key={l.id}>
              <path
                d={`M${x(Math.max(-kept.atCm, -(l.reachCm - l.fadeCm)))} ${y}H${x(Math.max(0, l.reachCm - l.fadeCm))}`}
                stroke={bad ? tones.danger : tones.ink}
                strokeWidth="7"
              />
              <path
                d={`M${x(Math.max(0, l.reachCm - l.fadeCm))} ${y - 3.5}L${x(l.reachCm)} ${y}L${x(Math.max(0, l.reachCm - l.fadeCm))} ${y + 3.5}Z`}
                fill={bad ? tones.danger : tones.ink}
              />
              <text x="808" y={y + 4.5} fontSize="15" fill={tones.ink}>
                {l.name} {units.say('distance', l.reachCm)}
              </text>
            </g>
          );
        })}
        <circle cx={x(0)} cy="93" r="5" fill="none" stroke={tones.ink} strokeWidth="2" />
      </svg>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        the finish that is there above, the blend below, touching, at {shown}°; circle: the repair; dashed: breaks
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 210px', gap: 2, mt: 1 }}>
        <Box
          role="img"
          aria-label="Difference to the existing finish along the panel, one line an angle"
          sx={{ height: 190 }}
        >
          <ResponsiveContainer>
            <LineChart data={rows} margin={{ top: 6, right: 12, bottom: 16, left: 0 }}>
              <CartesianGrid stroke={tones.hairline} strokeWidth={0.6} />
              <XAxis
                dataKey="at"
                type="number"
                domain={[0, 'dataMax']}
                stroke={tones.ink}
                tick={{ fontFamily: FIGURES, fontSize: 13 }}
                ticks={ticks}
                tickFormatter={(v: number) => (v * perUnit).toFixed(0)}
                label={{
                  value: `${units.name('distance')} from the repair`,
                  position: 'insideBottom',
                  offset: -10,
                  fill: tones.ink,
                }}
              />
              <YAxis
                stroke={tones.ink}
                tick={{ fontFamily: FIGURES, fontSize: 13 }}
                width={44}
                label={{ value: 'dE00', angle: -90, position: 'insideLeft', fill: tones.ink }}
              />
              {value?.angles.map((a, g) => (
                <Line
                  key={a}
                  dataKey={`a${a}`}
                  stroke={tones.ink}
                  strokeWidth={a === shown ? 3 : 1.4}
                  strokeDasharray={DASH[g % DASH.length] ?? ''}
                  dot={false}
                  isAnimationActive={false}
                />
              ))}
              {breaks.map((b) => (
                <ReferenceLine key={b} x={b} stroke={tones.ink} strokeDasharray="7 4" />
              ))}
            </LineChart>
          </ResponsiveContainer>
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
