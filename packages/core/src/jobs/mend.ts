import { STYLES, type StyleId } from '../finishes/styles';
import { settingsForFilm } from '../spraying/gunFilm';
import type { PlannedCoat } from '../spraying/coatPlan';
import { MEND_TAKES, type Check } from './checks';
import { cellKey, LET_DOWN, type CellRef, type JobEvent } from './events';
import type { Cell } from './job';
import type { MendStep } from './mendSteps';
import type { JobPlan } from './plan';
import { reachM2, type Reach } from './reach';

/** Whether a cell is of a mend: it is in no plan. */
export const isMend = ({ coatId }: CellRef): boolean => coatId.startsWith('mend/');

/** Whether a reach is less than the area. */
const isLocal = (reach: Reach): boolean => reach.kind === 'fan' || reach.kind === 'spot';
/** Further away for a light and a control coat than for a full one, as coats are planned. */
const AWAY: Readonly<Partial<Record<StyleId, number>>> = { light: 1.4, control: 2 };
/** How a coat of a style is called before its name. */
const CALLED: Readonly<Partial<Record<StyleId, string>>> = {
  light: 'light coat of ',
  half: 'half coat of ',
  control: 'control coat of ',
};
/** More air for a control coat, bar, as coats are planned. */
const CONTROL_BAR = 0.2;

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
  const away = (AWAY[step.style] ?? 1) / (AWAY[full.style] ?? 1);
  const coat: PlannedCoat = {
    ...full,
    ...settingsForFilm(
      plan.gun,
      {
        ...full,
        turns: null,
        distanceCm: Math.round(full.distanceCm * away),
        pressureBar:
          step.style === 'control' && full.style !== 'control'
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
  const local = isLocal(step.reach);
  return {
    ...like,
    coatId: q.id,
    areaId: q.areaId,
    objectId: area.objectId,
    coat,
    reach: step.reach,
    areaM2: reachM2(step.reach, area),
    coats: layer.kind === 'effect' && !layer.counted ? 0 : film / STYLES[layer.style].film,
    spot: local ? q.spot : null,
    anew: step.anew,
    round: q.round,
    under: [],
    checks: [],
  };
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
  const workId = (i: number) => `mend/${event.id}/${i}`;
  const lookId = `mend/${event.id}/look`;
  const areas = event.cells.filter((c) => plan.areas.some((a) => a.id === c.areaId));
  let cells = [...planned];
  let open = checks;
  /** What each area has on it before a step of the mend. */
  const last = new Map<string, CellRef | null>();
  const works = mend.steps.map((): CellRef[] => []);
  for (const below of areas) {
    const { areaId } = below;
    const at = cells.findIndex((c) => cellKey(c) === cellKey(below));
    const from = at >= 0 ? below : null;
    let place =
      at >= 0
        ? at + 1
        : Math.max(
            0,
            cells.findIndex((c) => c.areaId === areaId),
          );
    let before: CellRef | null = from && { coatId: from.coatId, areaId };
    let due: string[] = [];
    mend.steps.forEach((step, i) => {
      if (step.is === 'work') {
        if (before) works[i]!.push(before);
        due.push(workId(i));
        return;
      }
      const same = mend.steps.filter((s) => s.is === 'coat' && s.layerId === step.layerId && s.style === step.style);
      const cell = mendCell(plan, {
        ...{ id: workId(i), areaId, step, spot: mend.spot, round: JSON.stringify(['mend', event.id, i]) },
        ...{ number: same.indexOf(step) + 1, of: same.length },
      });
      if (!cell) return;
      cells.splice(place++, 0, { ...cell, under: before ? [before] : [], checks: due });
      before = { coatId: cell.coatId, areaId };
      due = [];
    });
    last.set(areaId, before);
    const mine = new Set(mend.steps.map((_, i) => cellKey({ coatId: workId(i), areaId })));
    const waits = [...due, ...(mend.views.length ? [lookId] : [])];
    const lies = (u: CellRef) => from !== null && cellKey(u) === cellKey(from);
    const first = cells.findIndex(
      (c) => c.areaId === areaId && !mine.has(cellKey(c)) && (from ? c.under.some(lies) : true),
    );
    // What was to lie on what is mended lies on the mend.
    cells = cells.map((c, i) =>
      mine.has(cellKey(c)) || !(from ? c.under.some(lies) : i === first)
        ? c
        : {
            ...c,
            under: before ? [...c.under.filter((u) => !lies(u)), before] : c.under,
            checks: [...waits, ...c.checks],
          },
    );
    // What is looked at there is looked at behind the mend, if it is not over.
    open = open.map((k) =>
      before && from && !isOver(k.id) && k.after.some(lies)
        ? { ...k, after: k.after.map((u) => (lies(u) ? before! : u)) }
        : k,
    );
  }
  const areaIds = areas.map((c) => c.areaId);
  const objects = new Set(plan.areas.filter((a) => areaIds.includes(a.id)).map((a) => a.objectId));
  const shared = {
    objectId: objects.size === 1 ? [...objects][0]! : null,
    areaIds,
    layerId: null,
    coats: null,
    spot: mend.spot,
  };
  let previous: string | null = null;
  const own = mend.steps.flatMap((step, i): Check[] => {
    if (step.is === 'coat') {
      previous = null;
      return [];
    }
    const check: Check = {
      ...shared,
      id: workId(i),
      kind: step.kind,
      after: works[i]!,
      afterChecks: previous ? [previous] : [],
      minutes: step.minutes,
      takes: MEND_TAKES[step.kind],
      text: step.text,
    };
    previous = check.id;
    return [check];
  });
  if (mend.views.length)
    own.push({
      ...shared,
      id: lookId,
      kind: 'look',
      layerId: plan.layers.find((l) => l.counted)?.id ?? null,
      after: [...last.values()].flatMap((c) => (c ? [c] : [])),
      afterChecks: previous ? [previous] : [],
      minutes: 0,
      takes: 2,
      views: mend.views,
    });
  return { cells, checks: [...open, ...own] };
}
