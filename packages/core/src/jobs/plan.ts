import { settingsForFilm } from '../spraying/gunFilm';
import { STYLES, type StyleId } from '../finishes/styles';
import { wayOf } from '../products/ways';
import { potLifeAt } from '../mixing/voc';
import { bestOrder, type BoothAir } from '../booth/order';
import { sprayMinutes, type PlannedCoat } from '../spraying/coatPlan';
import { checksOf } from './checks';
import { LET_DOWN } from './events';
import { type Cell } from './job';
import type { JobPlanInput, JobPlan, CoatRow } from './planTypes';
import { BEFORE_CLEAR, waitBetween, SHORTEST_FLASH, OPEN_SHARE, laidOn, jobLayers } from './laid';
import { createCoats, flashOf, cellsOf, withUnder, byRank } from './cells';

/** Minutes to mix a cup; ours. */
const MIX_MINUTES = 6;
/** The whole spraying of a job: a cell for every coat on every area, in order, with what waits for what. */
export function planJob(q: JobPlanInput): JobPlan {
  const layers = jobLayers(q.finishes, q.areas);
  const coatsOf = createCoats(q, layers);
  const laid = new Map(q.areas.map((a) => [a.id, laidOn(a, q, layers)]));
  const flashes = [...laid.values()].flatMap((l) => coatsOf(l).map((c) => flashOf(q, c)));
  const air: BoothAir = {
    towards: q.settings.airTowards,
    openMinutes: Math.max(SHORTEST_FLASH, ...flashes) * OPEN_SHARE,
    minutesPerM2: sprayMinutes(1, q.gun, { speedCmS: q.gun.speedCmS, overlap: 0.75 }),
  };
  const advised = bestOrder(q.areas, air);
  const own = q.settings.order;
  const placeIn = (list: readonly string[], id: string) => (list.includes(id) ? list.indexOf(id) : list.length);
  const order = own ? [...advised].sort((a, b) => placeIn(own, a.id) - placeIn(own, b.id)) : advised;
  const ranked = order.flatMap((area, place) => {
    const finish = q.finishes.findIndex((f) => f.id === area.finishId);
    return cellsOf(q, area, laid.get(area.id)!, coatsOf(laid.get(area.id)!), place, finish);
  });
  const { cells, checks } = checksOf(
    { ...q, areas: order, way: wayOf(q.gun) },
    withUnder(ranked.sort(byRank), order),
    layers,
  );
  const beforeClear = q.settings.beforeClearMinutes ?? BEFORE_CLEAR;
  const batches = [...new Map(cells.map((c) => [c.coat.cupId, c.coat])).values()].map((c) => ({
    id: c.cupId,
    name: c.name,
    mixMinutes: MIX_MINUTES,
    potMinutes: c.potLifeMinutes === null ? null : potLifeAt(c.potLifeMinutes, q.temperatureC),
  }));
  return {
    layers,
    areas: q.areas,
    objects: q.objects,
    finishes: q.finishes,
    gun: q.gun,
    cells,
    checks,
    rows: rowsOf(cells, beforeClear),
    order,
    advised,
    air,
    batches,
    beforeClear,
  };
}

/** Coats of the plan in order, each once however many areas it goes on; of areas that get more of a layer the larger number. */
function rowsOf(cells: readonly Cell[], beforeClear: number): CoatRow[] {
  const rows = new Map<string, Cell[]>();
  for (const c of cells) {
    const key = JSON.stringify([c.coatId, c.coat.style]);
    rows.set(key, [...(rows.get(key) ?? []), c]);
  }
  return [...rows.values()].map((own) => {
    const most = own.reduce((a, b) => (b.coat.of > a.coat.of ? b : a));
    const waits = own.map((c) => {
      const next = cells.find((n) => n.under.some((u) => u.coatId === c.coatId && u.areaId === c.areaId));
      return next ? waitBetween({ beforeClear }, c, next) : c.flashMinutes;
    });
    return { coat: most.coat, cells: own, waitMinutes: Math.max(...waits) };
  });
}

/**
 * A coat more of a layer than is planned: as that layer's last coat on the area, with settings that lay its share of film.
 * @param coats against a full coat of the layer: 1, a half, a quarter; an eighth is a quarter coat of the mix let down 1:1
 */
export function extraCell(
  plan: JobPlan,
  q: {
    readonly id: string;
    readonly layerId: string;
    readonly areaId: string;
    readonly coats: number;
    readonly letDown?: boolean;
  },
): Cell | null {
  const last = plan.cells.findLast((c) => c.areaId === q.areaId && c.layerId === q.layerId && c.coat.counted);
  const layer = plan.layers.find((l) => l.id === q.layerId);
  if (!last || !layer) return null;
  const film = q.coats * STYLES[layer.style].film;
  const laid = q.letDown ? 2 * q.coats : q.coats;
  const style: StyleId = laid >= 1 - 1e-9 ? layer.style : laid >= 0.5 - 1e-9 ? 'half' : 'light';
  const volumeSolids = last.coat.volumeSolids / (q.letDown ? 2 : 1);
  const filmUm = film * layer.filmUm;
  const full = last.coat;
  const coat: PlannedCoat = {
    ...full,
    ...settingsForFilm(plan.gun, full, volumeSolids, filmUm),
    id: q.id,
    number: full.number + 1,
    name: q.letDown ? `${full.name}, ${LET_DOWN}` : full.name,
    volumeSolids,
    style,
    film,
    filmUm,
  };
  return {
    ...last,
    coatId: q.id,
    coat,
    coats: q.coats,
    round: JSON.stringify(['extra', q.id]),
    under: [{ coatId: last.coatId, areaId: last.areaId }],
    checks: [],
  };
}
