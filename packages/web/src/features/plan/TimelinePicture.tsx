import { Box, useTheme } from '@mui/material';
import { keptGaps } from '@steady-gleam/core/booth';
import { sayCoat } from '@steady-gleam/core/spraying';
import { FIGURES } from '../../app/theme';
import { cssOf, inkOn } from '../../shared/screenColour';
import type { JobWorked } from '../../shared/useJobWork';
import { useLayerColours } from '../../shared/film/useLayerColours';
import type { ShownTimeline } from './timelineModel';

const [WIDE, LEFT] = [940, 116];
/** Height of a line in the picture's own units, {@link WIDE} of which are its width: few lines take the room there is. */
const highOf = (lines: number): number => Math.min(72, Math.max(46, 350 / lines));

/** Ticks on round clock times, minutes from the origin. */
function ticksOf(origin: number, from: number, span: number): number[] {
  const step = [10, 15, 30, 60, 120].find((s) => span / s <= 12) ?? 240;
  const first = from + ((step - ((origin / 60_000 - new Date(origin).getTimezoneOffset() + from) % step)) % step);
  return Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => first + i * step);
}

/** Areas down, the clock across: every coat in its colour, cups and checks below. */
export function TimelinePicture({ work, timeline }: { work: JobWorked; timeline: ShownTimeline }) {
  const { tones } = useTheme();
  const { rows, order, layers } = work.plan;
  const { line, origin, at, say, coatOf } = timeline;
  const looks = useLayerColours(layers);
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
  const high = highOf(lines.length);
  const from = Math.min(0, ...line.tasks.map((t) => t.start));
  const span = Math.max(30, line.end - from);
  const x = (m: number) => LEFT + ((m - from) / span) * (WIDE - LEFT - 12);
  const ticks = ticksOf(origin, from, span).filter((m) => x(m) < WIDE - 22);
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${lines.length * high + 34}`}
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
          <line x1="0" x2={WIDE} y1="0" y2="0" stroke={tones.hairline} />
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
  );
}

/** Clock time of every coat, and the gap that is kept after it. */
export function ClockTimes({ work, timeline }: { work: JobWorked; timeline: ShownTimeline }) {
  const { tones } = useTheme();
  const { line, tasks, at } = timeline;
  const coats = work.plan.rows.map((r) => r.coat);
  const gaps = keptGaps(tasks, line);
  return (
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
  );
}

/** The least gap that is kept after a coat on any area; nothing after the last. */
const sayGap = (minutes: number | undefined): string => (minutes === undefined ? '' : `+${Math.ceil(minutes)} min`);
