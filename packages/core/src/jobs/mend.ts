import { STYLES, type StyleId } from '../finishes/styles';
import { settingsForFilm } from '../spraying/gunFilm';
import { wayOf } from '../products/ways';
import { awayOf, CONTROL_BAR, type PlannedCoat } from '../spraying/coatPlan';
import { TAKES, type Check } from './checks';
import { LET_DOWN, type CellRef, type JobEvent } from './events';
import type { Cell } from './job';
import type { Mend, MendStep } from './mendSteps';
import type { JobPlan } from './planTypes';
import { reachM2 } from './reach';

/** Whether a cell is of a mend: it is in no plan. */
export const isMend = ({ coatId }: CellRef): boolean => coatId.startsWith('mend/');

/** How a coat of a style is called before its name. */
const CALLED: Readonly<Partial<Record<StyleId, string>>> = {
  light: 'light coat of ',
  half: 'half coat of ',
  control: 'control coat of ',
};
/**
 * A coat of a mend on one area: as that layer is planned there, or anywhere in the job, with settings that lay its film.
 * @returns null where the plan lays no coat of that layer
 */
export function mendCell(
  plan: Pick<JobPlan, 'cells' | 'layers' | 'areas' | 'gun'>,
  q: {
    readonly id: string;
    readonly areaId: string;
    readonly step: Extract<MendStep, { is: 'coat' }>;
    readonly spot: string;
    readonly round: string;
    readonly number: number;
    readonly of: number;
  },
): Cell | null {
  const { step } = q;
  const ofLayer = plan.cells.filter((c) => c.layerId === step.layerId && c.coat.counted);
  const like = ofLayer.findLast((c) => c.areaId === q.areaId) ?? ofLayer.at(-1);
  const layer = plan.layers.find((l) => l.id === step.layerId);
  const area = plan.areas.find((a) => a.id === q.areaId);
  if (!like || !layer || !area) return null;
  const full = like.coat;
  const film = step.share * STYLES[step.style].film;
  const filmUm = film * layer.filmUm;
  const volumeSolids = full.volumeSolids / (step.letDown ? 2 : 1);
  // A can is held as it is, whatever is laid.
  const way = wayOf(plan.gun);
  const away = way ? 1 : awayOf(step.style) / awayOf(full.style);
  const coat: PlannedCoat = {
    ...full,
    ...settingsForFilm(
      plan.gun,
      {
        ...full,
        turns: null,
        distanceCm: Math.round(full.distanceCm * away),
        pressureBar:
          !way && step.style === 'control' && full.style !== 'control'
            ? Number((full.pressureBar + CONTROL_BAR).toFixed(2))
            : full.pressureBar,
      },
      volumeSolids,
      filmUm,
    ),
    id: q.id,
    number: q.number,
    of: q.of,
    name: `${CALLED[step.style] ?? ''}${full.name}${step.letDown ? `, ${LET_DOWN}` : ''}`,
    volumeSolids,
    style: step.style,
    film,
    filmUm,
    typedFlash: null,
  };
  return {
    ...like,
    coatId: q.id,
    areaId: q.areaId,
    objectId: area.objectId,
    coat,
    reach: step.reach,
    areaM2: reachM2(step.reach, area),
    coats: layer.kind === 'effect' && !layer.counted ? 0 : film / STYLES[layer.style].film,
    spot: step.reach.kind === 'fan' ? q.spot : null,
    anew: step.anew,
    round: q.round,
    under: [],
    checks: [],
  };
}

/** A step of a mend under its id; null is the look that ends it. */
interface Item {
  readonly id: string;
  readonly step: MendStep | null;
}

/** Steps of a mend in their order, the look among them: behind all of it, but before clear goes over colour that was laid anew. */
function itemsOf(plan: Pick<JobPlan, 'layers'>, id: string, { steps, views }: Mend): Item[] {
  const kindOf = (s: MendStep) => (s.is === 'coat' ? plan.layers.find((l) => l.id === s.layerId)?.kind : undefined);
  const items = steps.map((step, i): Item => ({ id: `mend/${id}/${i}`, step }));
  if (!views.length) return items;
  const colour = steps.findIndex((s) => kindOf(s) === 'ground' || kindOf(s) === 'effect');
  const clear = steps.findIndex((s, i) => colour >= 0 && i > colour && kindOf(s) === 'clear');
  items.splice(clear < 0 ? items.length : clear, 0, { id: `mend/${id}/look`, step: null });
  return items;
}

/** Cells and checks of a job with a mend put in: on each of its areas right behind what lay there when it was chosen. */
export function withMend(
  plan: JobPlan,
  { cells: planned, checks }: { readonly cells: readonly Cell[]; readonly checks: readonly Check[] },
  event: JobEvent,
  isOver: (checkId: string) => boolean,
): { readonly cells: readonly Cell[]; readonly checks: readonly Check[] } {
  const { mend } = event;
  if (!mend) return { cells: planned, checks };
  const items = itemsOf(plan, event.id, mend);
  const areas = event.cells.filter((c) => plan.areas.some((a) => a.id === c.areaId));
  let cells = [...planned];
  // The same place is mended again: it is looked at once, behind the last of it.
  let open = checks.filter((k) => !k.views || k.spot !== mend.spot || isOver(k.id));
  /** What lies right under each check of the mend, by its id. */
  const under = new Map(items.map(({ id }) => [id, [] as CellRef[]]));
  for (const { coatId, areaId } of areas) {
    const at = cells.findIndex((c) => c.coatId === coatId && c.areaId === areaId);
    const first = cells.find((c) => c.areaId === areaId);
    const lies = (u: CellRef) => at >= 0 && u.coatId === coatId && u.areaId === areaId;
    const follows = (c: Cell) => (at >= 0 ? c.under.some(lies) : c === first);
    let before: CellRef | null = at >= 0 ? { coatId, areaId } : null;
    let due: string[] = [];
    const own: Cell[] = [];
    for (const { id, step } of items) {
      if (step?.is !== 'coat') {
        if (before) under.get(id)!.push(before);
        due.push(id);
        continue;
      }
      const same = mend.steps.filter((s) => s.is === 'coat' && s.layerId === step.layerId && s.style === step.style);
      const cell = mendCell(plan, {
        ...{ id, areaId, step, spot: mend.spot, round: JSON.stringify(['mend', id]) },
        ...{ number: same.indexOf(step) + 1, of: same.length },
      });
      if (!cell) continue;
      own.push({ ...cell, under: before ? [before] : [], checks: due });
      before = { coatId: id, areaId };
      due = [];
    }
    const top = before;
    // What was to lie on what is mended lies on the mend.
    cells = cells.map((c) =>
      follows(c)
        ? { ...c, under: top ? [...c.under.filter((u) => !lies(u)), top] : c.under, checks: [...due, ...c.checks] }
        : c,
    );
    cells.splice(
      at >= 0
        ? at + 1
        : Math.max(
            0,
            cells.findIndex((c) => c.areaId === areaId),
          ),
      0,
      ...own,
    );
    // What is looked at there is looked at behind the mend, if it is not over.
    open = open.map((k) =>
      top && !isOver(k.id) && k.after.some(lies) ? { ...k, after: k.after.map((u) => (lies(u) ? top : u)) } : k,
    );
  }
  const areaIds = areas.map((c) => c.areaId);
  const objects = new Set(plan.areas.filter((a) => areaIds.includes(a.id)).map((a) => a.objectId));
  let previous: string[] = [];
  const own = items.flatMap(({ id, step }): Check[] => {
    const afterChecks = previous;
    previous = step?.is === 'coat' ? [] : [id];
    if (step?.is === 'coat') return [];
    const shared = {
      ...{ id, objectId: objects.size === 1 ? [...objects][0]! : null, areaIds, spot: mend.spot },
      ...{ after: under.get(id)!, afterChecks, coats: null },
    };
    return step
      ? [{ ...shared, kind: step.kind, layerId: null, minutes: step.minutes, takes: TAKES[step.kind], text: step.text }]
      : [
          {
            ...{ ...shared, kind: 'look', layerId: plan.layers.find((l) => l.counted)?.id ?? null },
            ...{ minutes: 0, takes: TAKES.look, views: mend.views },
          },
        ];
  });
  return { cells, checks: [...open, ...own] };
}
