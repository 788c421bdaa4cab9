import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import DragIndicatorIcon from '@mui/icons-material/DragIndicator';
import { Box, Button, Checkbox, FormControlLabel, IconButton, Slider, Typography, useTheme } from '@mui/material';
import { areasOf, START_MIXING, type Area, type Mixing } from '@steady-gleam/contracts';
import {
  additiveSuits,
  LARGE_JOB_M2,
  productFor,
  reducerFor,
  orderCost,
  OVERSPRAY_SEEN,
  worstOverspray,
  type BoothArea,
} from '@steady-gleam/core';
import { useRef, useState, type PointerEvent } from 'react';
import { FIGURES } from '../../app/theme';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useUnits } from '../../shared/units';
import { useChangeJob } from '../../shared/useJob';
import type { PlanPanelProps } from './PlanPage';

/** Booth drawn, m. */
const [WIDE, DEEP] = [6, 4];

function Row({
  piece,
  place,
  onFirst,
  onStand,
  stand,
}: {
  piece: BoothArea;
  place: number;
  stand: boolean;
  onFirst: (first: boolean) => void;
  onStand: (stand: boolean) => void;
}) {
  const { tones } = useTheme();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: piece.id });
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition: transition ?? undefined }}
      sx={{ borderBottom: `1px solid ${tones.hairline}`, py: 0.25 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
        <IconButton
          {...attributes}
          {...listeners}
          aria-label={`Move ${piece.name}`}
          sx={{
            width: 44,
            height: 44,
            borderRadius: '2px',
            cursor: 'grab',
            touchAction: 'none',
            color: 'text.primary',
          }}
        >
          <DragIndicatorIcon />
        </IconButton>
        <Typography variant="h3" component="span" sx={{ flex: 1 }}>
          {place}. {piece.name}
        </Typography>
      </Box>
      <Box sx={{ pl: '48px', mt: -1, display: 'flex', gap: 1 }}>
        <FormControlLabel
          control={<Checkbox checked={piece.first} onChange={(e) => onFirst(e.target.checked)} />}
          label="jamb"
          slotProps={{ typography: { sx: { fontSize: 14 } } }}
        />
        <FormControlLabel
          control={<Checkbox checked={stand} onChange={(e) => onStand(e.target.checked)} />}
          label="stand"
          slotProps={{ typography: { sx: { fontSize: 14 } } }}
        />
      </Box>
    </Box>
  );
}

/** A slower reducer that suits today, for the cup that flashes fastest of those that have one; null where none does. */
function slowerReducer(work: PlanPanelProps['work'], areaM2: number, mixing: Mixing): string | null {
  const middle = (a: { fromC: number; toC: number }) => (a.fromC + a.toC) / 2;
  for (const coat of work.plan.rows.map((r) => r.coat).filter((c) => c.kind === 'effect' || c.kind === 'ground')) {
    const layer = work.plan.layers.find((l) => l.id === coat.cupId);
    const product = layer && productFor(layer, work.library, work.products, mixing.products);
    if (!product) continue;
    const has = reducerFor(product, mixing.temperatureC, areaM2, mixing.reducers?.[coat.cupId]);
    const better = product.additives.find(
      (a) =>
        a.role === 'reducer' &&
        has !== null &&
        middle(a) > middle(has) &&
        additiveSuits(a, mixing.temperatureC, Math.max(areaM2, LARGE_JOB_M2)),
    );
    if (better) return better.name;
  }
  return null;
}

/** Areas in the booth against the air: where they stand, in which order they are sprayed, and what that costs. */
export function OrderPanel({ detail, plan, set, work, tabs }: PlanPanelProps) {
  const { tones } = useTheme();
  const units = useUnits();
  const { job } = detail;
  const change = useChangeJob(job.id);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const svg = useRef<SVGSVGElement>(null);
  const [moving, setMoving] = useState<{ id: string; x: number; y: number } | null>(null);
  const { order, advised, air } = work.plan;
  const areas = areasOf(job);
  const areaM2 = order.reduce((sum, p) => sum + (p.on === null ? p.areaM2 : 0), 0);
  const own = orderCost(order, air);
  const best = orderCost(advised, air);
  const worst = worstOverspray(order, air);
  const alter = (id: string, more: Partial<Area>) =>
    change.mutate({ version: job.version, areas: areas.map((p) => (p.id === id ? { ...p, ...more } : p)) });
  const loose = areas.filter((p) => p.mounting === 'stand' && !p.first);
  const isOwn = plan.order !== null && own > best + OVERSPRAY_SEEN && worst !== null;
  const share = best > OVERSPRAY_SEEN ? own / best : Infinity;
  const slower = slowerReducer(work, areaM2, detail.job.mixing ?? START_MIXING);
  const at = (e: PointerEvent): { x: number; y: number } => {
    const box = svg.current!.getBoundingClientRect();
    const clamp = (v: number, hi: number) => Math.round(Math.min(hi - 0.2, Math.max(0.2, v)) * 10) / 10;
    return {
      x: clamp(((e.clientX - box.left) / box.width) * WIDE, WIDE),
      y: clamp(((e.clientY - box.top) / box.height) * DEEP, DEEP),
    };
  };
  const placed = (p: BoothArea) => (moving?.id === p.id ? moving : p);
  const angle = (air.towards * Math.PI) / 180;
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Sprayed in this order</Typography>
          <DndContext
            sensors={sensors}
            collisionDetection={closestCenter}
            onDragEnd={({ active, over }) => {
              if (!over || active.id === over.id) return;
              const ids = order.map((p) => p.id);
              set({ order: arrayMove(ids, ids.indexOf(String(active.id)), ids.indexOf(String(over.id))) });
            }}
          >
            <SortableContext items={order.map((p) => p.id)} strategy={verticalListSortingStrategy}>
              <Box component="ol" aria-label="Order of areas" sx={{ listStyle: 'none', m: 0, p: 0 }}>
                {order.map((p, i) => (
                  <Row
                    key={p.id}
                    piece={p}
                    place={i + 1}
                    stand={areas.find((q) => q.id === p.id)?.mounting === 'stand'}
                    onFirst={(first) => alter(p.id, { first })}
                    onStand={(stand) => alter(p.id, { mounting: stand ? 'stand' : 'object' })}
                  />
                ))}
              </Box>
            </SortableContext>
          </DndContext>
          {plan.order ? (
            <Button variant={isOwn ? 'contained' : 'outlined'} onClick={() => set({ order: null })}>
              Take the advised order
            </Button>
          ) : null}
          {change.error ? (
            <Typography role="alert" sx={{ color: 'error.main' }}>
              {change.error.message}
            </Typography>
          ) : null}
          <Typography variant="body2" sx={{ mt: 'auto', color: 'text.secondary' }}>
            Exhaust on before the gun is opened; you stand up the air from what you spray. Local rules come first.
          </Typography>
        </>
      }
    >
      <Answer
        why={
          isOwn && worst
            ? `In your order overspray of ${worst.from.name} falls on ${worst.onto.name} when that is drying: it lies dry there. The advised order lays ${share === Infinity ? 'none' : `${share.toFixed(1)} times less`}.`
            : worst
              ? `Some overspray of ${worst.from.name} still falls on ${worst.onto.name} when that is drying; no order lays less. ${slower ? `More room between them would help, or the slower reducer the shop has, ${slower}: choose it in the mix room, and order and times follow.` : 'More room between them would help; the cups already have the slowest reducer that suits.'}`
              : 'In this order overspray falls on paint that is still wet, or flies away from it.'
        }
      >
        {order.length > 1
          ? `${isOwn ? 'Your order' : 'Start with'}${isOwn ? ' lays dry overspray.' : ` ${order[0]!.name}, end with ${order.at(-1)!.name}.`}`
          : `One area: ${order[0]?.name ?? 'none'}. Spray it against the air.`}
      </Answer>
      {tabs}
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDE * 100} ${DEEP * 100}`}
        width="100%"
        style={{ maxHeight: 440, background: tones.panel, touchAction: 'none' }}
        role="img"
        aria-label={`Booth: ${order.map((p, i) => `${i + 1} ${p.name}`).join(', ')}; air towards ${air.towards}°`}
        onPointerMove={(e) => moving && setMoving({ id: moving.id, ...at(e) })}
        onPointerUp={() => {
          if (moving) alter(moving.id, { x: moving.x, y: moving.y });
          setMoving(null);
        }}
      >
        <rect
          x="1"
          y="1"
          width={WIDE * 100 - 2}
          height={DEEP * 100 - 2}
          fill="none"
          stroke={tones.ink}
          strokeWidth="2"
        />
        {Array.from({ length: 24 }, (_, i) => {
          const [x, y] = [60 + (i % 6) * 96, 50 + Math.floor(i / 6) * 98];
          const [dx, dy] = [26 * Math.cos(angle), 26 * Math.sin(angle)];
          return (
            <path
              key={i}
              d={`M${x - dx} ${y - dy}L${x + dx} ${y + dy}M${x + dx - 0.4 * dx - 0.22 * dy} ${y + dy - 0.4 * dy + 0.22 * dx}L${x + dx} ${y + dy}L${x + dx - 0.4 * dx + 0.22 * dy} ${y + dy - 0.4 * dy - 0.22 * dx}`}
              stroke={tones.hairline}
              strokeWidth="2.5"
              fill="none"
            />
          );
        })}
        <path
          d={order.map((p, i) => `${i ? 'L' : 'M'}${placed(p).x * 100} ${placed(p).y * 100}`).join('')}
          fill="none"
          stroke={tones.ink}
          strokeWidth="2"
          strokeDasharray="3 6"
        />
        {worst ? (
          <line
            x1={worst.from.x * 100}
            y1={worst.from.y * 100}
            x2={worst.onto.x * 100}
            y2={worst.onto.y * 100}
            stroke={tones.danger}
            strokeWidth="5"
            opacity="0.8"
          />
        ) : null}
        {order.map((p, i) => {
          const r = 20 + 13 * Math.sqrt(p.areaM2);
          const { x, y } = placed(p);
          return (
            <g
              key={p.id}
              transform={`translate(${x * 100} ${y * 100})`}
              style={{ cursor: 'grab' }}
              onPointerDown={(e) => {
                svg.current!.setPointerCapture(e.pointerId);
                setMoving({ id: p.id, x: p.x, y: p.y });
              }}
            >
              {areas.find((q) => q.id === p.id)?.mounting === 'stand' ? (
                <rect
                  x={-r}
                  y={-r * 0.7}
                  width={2 * r}
                  height={1.4 * r}
                  fill={tones.raised}
                  stroke={tones.ink}
                  strokeWidth="2"
                />
              ) : (
                <circle r={r} fill={tones.raised} stroke={tones.ink} strokeWidth="2" />
              )}
              <text textAnchor="middle" y="6" fontSize="21" fontWeight="700" fontFamily={FIGURES} fill={tones.ink}>
                {i + 1}
              </text>
              <text textAnchor="middle" y={r + 16} fontSize="14.5" fill={tones.ink}>
                {p.name}
              </text>
            </g>
          );
        })}
      </svg>
      <Box sx={{ display: 'flex', gap: 3, alignItems: 'center', mt: 1.5, flexWrap: 'wrap' }}>
        <Box sx={{ width: 260 }}>
          <Typography variant="h3" component="div" id="air-label">
            Air flows towards {plan.airTowards}°
          </Typography>
          <Slider
            aria-labelledby="air-label"
            min={0}
            max={345}
            step={15}
            value={plan.airTowards}
            onChange={(_, v) => set({ airTowards: v as number })}
          />
        </Box>
        <Typography variant="body2" sx={{ color: 'text.secondary', maxWidth: 520 }}>
          Drag an area to where it stands; the booth drawn is {units.say('length', WIDE, 0)} by{' '}
          {units.say('length', DEEP, 0)}.{' '}
          {loose.length
            ? `For the effect coats mount ${loose.map((p) => p.name).join(' and ')} as on the object: flakes lie as the part hangs.`
            : 'Every area is mounted as on the object.'}
        </Typography>
      </Box>
    </Bench>
  );
}
