import { Box, Button, Checkbox, FormControlLabel, Typography, useTheme } from '@mui/material';
import { sprayPlanSchema, START_MIXING } from '@steady-gleam/contracts';
import {
  BAKE_MINUTES,
  BEFORE_CLEAR,
  dewCheck,
  DEW_MARGIN,
  checkTask,
  keptGaps,
  planTimeline,
  sayCheckOf,
  sayCoat,
  sayOn,
  tasksDone,
  timeTasks,
  type PlannedTask,
  type Timeline,
} from '@steady-gleam/core';
import { createEvents, type EventAttributes } from 'ics';
import { useState } from 'react';
import { ValidationError } from 'yup';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { download, fileName } from '../../shared/download';
import { Field } from '../../shared/Field';
import { MeasureField } from '../../shared/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';
import { sayMinutes, timeOfDay } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';
import { useBatches } from '../../shared/useShop';
import { useCompute } from '../../worker/useCompute';
import { cssOf, inkOn } from '../../shared/screenColour';
import type { PlanPanelProps } from './PlanPage';

/** The least gap that is kept after a coat on any piece; nothing after the last. */
const sayGap = (minutes: number | undefined): string => (minutes === undefined ? '' : `+${Math.ceil(minutes)} min`);

/** A time as the browser's own field takes it. */
const localText = (iso: string): string => {
  const at = new Date(iso);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};

/** Everything against the clock: coats on pieces, cups, flash, windows and bake, for one painter today. */
export function TimePanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job } = detail;
  const mixing = job.mixing ?? START_MIXING;
  const now = useNow(60_000);
  const { data: stored = [] } = useBatches();
  const [typed, setTyped] = useState<{ start?: string; surface?: string; beforeClear?: string }>({});
  const [faults, setFaults] = useState<Record<string, string>>({});
  const change = (more: Partial<typeof plan>) => {
    try {
      sprayPlanSchema.validateSync({ ...plan, ...more }, { abortEarly: false });
      setFaults({});
      set(more);
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFaults(Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message])));
    }
  };
  const { rows, order, batches, layers } = work.plan;
  const { state } = work;
  const coats = rows.map((r) => r.coat);
  const tasks = timeTasks(work.plan, state);
  // Once the first coat is on, real times count and the rest follows from now.
  const origin = state.started ?? (plan.startAt ? new Date(plan.startAt).getTime() : now);
  const done = tasksDone(state, origin);
  // A cup was mixed when the mix room says so, else just before the first spray out of it.
  const mixed = new Map<string, number>();
  for (const c of coats) {
    const kept = stored.find((b) => b.jobId === job.id && b.layerId === c.cupId && b.endedAt === null);
    if (kept) mixed.set(c.cupId, (new Date(kept.mixedAt).getTime() - origin) / 60_000);
    else
      for (const t of tasks) {
        const end = t.coatId === c.id ? done.get(t.id) : undefined;
        if (end !== undefined) mixed.set(c.cupId, Math.min(end, mixed.get(c.cupId) ?? Infinity));
      }
  }
  const line: Timeline = planTimeline({
    tasks,
    batches,
    now: state.started === null ? 0 : Math.max(0, (now - origin) / 60_000),
    done,
    mixed,
  });
  const dew = dewCheck(mixing.temperatureC, mixing.humidity, plan.surfaceC ?? mixing.temperatureC);
  const at = (minutes: number) => timeOfDay(origin + minutes * 60_000);
  const { value: looks } = useCompute(JSON.stringify(['layers', layers.map((l) => ({ ...l, id: '' }))]), (c) =>
    c.layerColours(layers),
  );
  const gaps = keptGaps(tasks, line);
  const coatOf = (t: PlannedTask) => coats.find((c) => c.id === t.coatId);
  const say = (t: PlannedTask | undefined): string => {
    const coat = t && coatOf(t);
    if (coat) return `${sayCoat(coat)} on ${order.find((p) => p.id === t.areaId)?.name ?? 'the piece'}`;
    const check = state.checks.find((c) => checkTask(c.check.id) === t?.id)?.check;
    return check ? sayCheckOf(work.plan, check).title : 'a check';
  };
  const sayTask = (id: string) => say(line.tasks.find((t) => t.id === id));
  const fill = (layerId: string) => {
    const i = layers.findIndex((l) => l.id === layerId);
    const kind = layers[i]?.kind;
    const lab = looks?.[i];
    return lab && (kind === 'ground' || kind === 'effect')
      ? { css: cssOf(lab), ink: inkOn(lab) }
      : { css: kind === 'clear' ? '#d9d9d9' : '#8d8c86', ink: '#101010' };
  };
  const lines = [
    ...order.map((p) => ({ id: p.id, name: p.name })),
    { id: '#mix', name: 'mixing' },
    { id: '#check', name: 'checks' },
  ];
  const [wide, left, high] = [940, 116, 46];
  const from = Math.min(0, ...line.tasks.map((t) => t.start));
  const span = Math.max(30, line.end - from);
  const x = (m: number) => left + ((m - from) / span) * (wide - left - 12);
  const step = [10, 15, 30, 60, 120].find((s) => span / s <= 12) ?? 240;
  // Ticks stand on round clock times.
  const firstTick = from + ((step - ((origin / 60_000 - new Date(origin).getTimezoneOffset() + from) % step)) % step);
  const ticks = Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => firstTick + i * step).filter(
    (m) => x(m) < wide - 22,
  );
  const save = () => {
    const stamp = (m: number): [number, number, number, number, number] => {
      const d = new Date(origin + m * 60_000);
      return [d.getFullYear(), d.getMonth() + 1, d.getDate(), d.getHours(), d.getMinutes()];
    };
    const list = line.tasks
      .filter((t) => !t.done)
      .map((t): EventAttributes => ({
        uid: `${job.id}-${t.id.replace(/[^a-z0-9]/gi, '')}@steady-gleam`,
        title: t.batch ? `Mix ${t.batch.name}` : say(t).charAt(0).toUpperCase() + say(t).slice(1),
        description: `${job.piece}. ${coatOf(t)?.caution ?? ''}`,
        start: stamp(t.start),
        startInputType: 'local',
        end: stamp(Math.max(t.end, t.start + 1)),
        endInputType: 'local',
      }));
    const { value, error } = createEvents(list);
    if (error || !value) throw error ?? new Error('The calendar could not be written.');
    download(new Blob([value], { type: 'text/calendar' }), `${fileName(job.piece, 'spray plan')}.ics`);
  };
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Today</Typography>
          <Field
            label="First coat at"
            type="datetime-local"
            value={typed.start ?? (plan.startAt ? localText(plan.startAt) : '')}
            onChange={(e) => {
              setTyped({ ...typed, start: e.target.value });
              const time = new Date(e.target.value);
              if (e.target.value === '') change({ startAt: null });
              else if (!Number.isNaN(time.getTime())) change({ startAt: time.toISOString() });
            }}
            hint="empty: now"
          />
          <MeasureField
            measure="temperature"
            label="Surface of the piece"
            value={typed.surface ?? (plan.surfaceC === null ? '' : String(plan.surfaceC))}
            onValue={(v) => {
              setTyped({ ...typed, surface: v });
              change({ surfaceC: v.trim() === '' ? null : numberIn(v) });
            }}
            error={faults['surfaceC']}
            hint={`empty: ${mixing.temperatureC} °C, as the booth`}
          />
          <Typography
            sx={dew.ok ? {} : { borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}
            role={dew.ok ? undefined : 'alert'}
          >
            Dew point {units.say('temperature', dew.dew)} at {Math.round(mixing.humidity * 100)} % humidity:{' '}
            {dew.ok
              ? 'the surface is well above it.'
              : `the surface must be ${DEW_MARGIN} °C above it. Do not spray; warm the piece or dry the air.`}
          </Typography>
          <Field
            label="Least wait before two-pack clear, min"
            value={typed.beforeClear ?? (plan.beforeClearMinutes === null ? '' : String(plan.beforeClearMinutes))}
            onChange={(e) => {
              setTyped({ ...typed, beforeClear: e.target.value });
              change({ beforeClearMinutes: e.target.value.trim() === '' ? null : numberIn(e.target.value) });
            }}
            error={faults['beforeClearMinutes']}
            hint={`empty: ${BEFORE_CLEAR} min over solvent or water base, common practice (no source); the sheet rules`}
          />
          <FormControlLabel
            control={<Checkbox checked={plan.bake} onChange={(e) => set({ bake: e.target.checked })} />}
            label={`Stand and bake at the end, ${BAKE_MINUTES} min`}
          />
          <Button variant="outlined" onClick={save}>
            Save for the calendar
          </Button>
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Bake only when the booth and every part allow it; stand first, or solvent pops. Flash until evenly dull, not
            only by the clock.
          </Typography>
        </>
      }
    >
      <Answer
        why={
          line.conflicts.length
            ? line.conflicts
                .map((c) =>
                  c.kind === 'recoat'
                    ? `${sayTask(c.task)} would come ${sayMinutes(c.by)} after its recoat window: scuff it or do as its sheet says, or take fewer pieces at a time.`
                    : `${sayTask(c.task)}: the cup sets ${Math.ceil(c.by)} min too soon; mix it in two.`,
                )
                .join(' ')
            : `${state.started === null ? 'One painter' : `${sayOn(state)} The rest follows from now. One painter`}, ${order.length} ${order.length === 1 ? 'area' : 'areas'}, ${coats.length} coats at ${units.say('temperature', mixing.temperatureC)}. Longest flash ${Math.ceil(Math.max(0, ...work.plan.cells.map((c) => c.flashMinutes)))} min.`
        }
      >
        {!dew.ok
          ? 'Do not spray: the surface is too near to the dew point.'
          : line.conflicts.length
            ? `Done at ${at(line.end)}, but ${line.conflicts.length === 1 ? 'one thing does' : `${line.conflicts.length} things do`} not fit.`
            : `Start ${at(Math.min(0, from))}, done at ${at(line.end)}.`}
      </Answer>
      {tabs}
      <svg
        viewBox={`0 0 ${wide} ${lines.length * high + 34}`}
        width="100%"
        role="img"
        aria-label={`Timeline: ${line.tasks.filter((t) => t.kind === 'task').length} sprays from ${at(from)} to ${at(line.end)}`}
      >
        {ticks.map((m) => (
          <g key={m}>
            <line x1={x(m)} x2={x(m)} y1="22" y2={lines.length * high + 28} stroke={tones.hairline} />
            <text x={x(m)} y="15" fontSize="13" textAnchor="middle" fontFamily={FIGURES} fill={tones.ink}>
              {at(m)}
            </text>
          </g>
        ))}
        {lines.map((r, i) => (
          <g key={r.id} transform={`translate(0 ${28 + i * high})`}>
            <line x1="0" x2={wide} y1="0" y2="0" stroke={tones.hairline} />
            <text x="0" y={high / 2 + 5} fontSize="15" fill={tones.ink}>
              {r.name.length > 15 ? `${r.name.slice(0, 14)}…` : r.name}
            </text>
            {line.tasks
              .filter((t) =>
                t.kind === 'mix'
                  ? r.id === '#mix'
                  : t.areaId === null
                    ? r.id === '#check' && t.end > t.start
                    : t.areaId === r.id,
              )
              .map((t) => {
                const coat = coatOf(t);
                const { css, ink } = coat ? fill(coat.layerId) : { css: tones.raised, ink: tones.ink };
                const w = Math.max(3, x(t.end) - x(t.start));
                const flash = rows.find((o) => o.coat.id === t.coatId)?.waitMinutes ?? 0;
                const bad = line.conflicts.some((c) => c.task === t.id);
                return (
                  <g key={t.id}>
                    {flash > 0 ? (
                      <rect
                        x={x(t.end)}
                        y={high / 2 - 2}
                        width={Math.max(0, x(Math.min(line.end, t.end + flash)) - x(t.end))}
                        height="4"
                        fill={tones.hairline}
                      />
                    ) : null}
                    <rect
                      x={x(t.start)}
                      y="6"
                      width={w}
                      height={high - 12}
                      fill={css}
                      stroke={bad ? tones.danger : tones.ink}
                      strokeWidth={bad ? 3 : 1}
                      opacity={t.done ? 1 : 0.92}
                    >
                      <title>{`${t.batch ? `mix ${t.batch.name}` : say(t)}, ${at(t.start)} to ${at(t.end)}${t.done ? ', done' : ''}`}</title>
                    </rect>
                    {w > 20 && coat?.counted ? (
                      <text
                        x={x(t.start) + w / 2}
                        y={high / 2 + 5}
                        fontSize="13"
                        fontFamily={FIGURES}
                        textAnchor="middle"
                        fill={ink}
                      >
                        {coat.number}
                      </text>
                    ) : null}
                  </g>
                );
              })}
          </g>
        ))}
      </svg>
      <Box
        component="ol"
        aria-label="Clock times"
        sx={{ listStyle: 'none', m: 0, mt: 1.5, p: 0, columns: '300px', columnGap: 3 }}
      >
        {coats.map((c) => {
          const own = line.tasks.filter((t) => t.coatId === c.id);
          const start = Math.min(...own.map((t) => t.start));
          return (
            <Box
              component="li"
              key={c.id}
              sx={{
                display: 'flex',
                gap: 1.5,
                borderTop: `1px solid ${tones.hairline}`,
                py: 0.4,
                breakInside: 'avoid',
              }}
            >
              <span style={{ fontFamily: FIGURES }}>{own.length ? at(start) : ''}</span>
              <span>{sayCoat(c)}</span>
              <span style={{ marginLeft: 'auto', fontFamily: FIGURES }}>
                {own.every((t) => t.done) && own.length ? 'done' : sayGap(gaps.get(c.id))}
              </span>
            </Box>
          );
        })}
      </Box>
    </Bench>
  );
}
