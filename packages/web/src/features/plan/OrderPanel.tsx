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
import { Box, Button, Checkbox, FormControlLabel, IconButton, Typography, useTheme } from '@mui/material';
import { areasOf, type Area, type Mixing, START_MIXING } from '@steady-gleam/contracts';
import { orderCost, OVERSPRAY_SEEN, worstOverspray, type BoothArea } from '@steady-gleam/core/booth';
import { additiveSuits, LARGE_JOB_M2, productFor, reducerFor } from '@steady-gleam/core/products';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { useUnits } from '../../shared/units';
import { useChangeJob } from '../../shared/useJob';
import { BoothPicture, DEEP, WIDE } from './BoothPicture';
import type { PlanPanelProps } from './planPanel';
import { Slide } from '../../ui/Slide';

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
  const units = useUnits();
  const { job } = detail;
  const change = useChangeJob(job.id);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
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
      <BoothPicture
        order={order}
        air={air}
        worst={worst}
        standing={areas.flatMap((a) => (a.mounting === 'stand' ? [a.id] : []))}
        onMove={alter}
      />
      <Box sx={{ display: 'flex', gap: 3, alignItems: 'center', mt: 1.5, flexWrap: 'wrap' }}>
        <Box sx={{ width: 260 }}>
          <Typography variant="h3" component="div" id="air-label">
            Air flows towards {plan.airTowards}°
          </Typography>
          <Slide
            aria-labelledby="air-label"
            min={0}
            max={345}
            step={15}
            value={plan.airTowards}
            onChange={(v) => set({ airTowards: v })}
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
