import { type CellRef, cellKey, type JobEvent, type Laid, PUT_RIGHT } from './events';
import type { Cell } from './job';
import type { CellState, AreaOn, JobState } from './stateTypes';

export const isLaid = (c: CellRef): c is Laid => 'filmUm' in c;
/** A cell as the log keeps it. */
export const laidOf = (c: Cell): Laid => ({
  coatId: c.coatId,
  areaId: c.areaId,
  layerId: c.layerId,
  name: c.coat.name,
  coats: c.coats,
  filmUm: c.coat.filmUm,
  ...(c.spot ? { spot: c.spot } : {}),
});

/** A cell as an event names it, or as it was laid: nothing else of it is kept. */
export const namedOf = (c: CellRef | Laid): CellRef | Laid => ({
  coatId: c.coatId,
  areaId: c.areaId,
  ...(isLaid(c)
    ? {
        ...{ layerId: c.layerId, name: c.name, coats: c.coats, filmUm: c.filmUm },
        ...(c.spot ? { spot: c.spot } : {}),
      }
    : {}),
});

export function areaOn(
  areaId: string,
  states: readonly CellState[],
  sprayed: ReadonlyMap<string, { readonly laid: CellRef | Laid }>,
  byKey: ReadonlyMap<string, Cell>,
): AreaOn {
  const layers = new Map<string, { coats: number; planned: number; filmUm: number; plannedUm: number }>();
  const at = (layerId: string) => {
    const known = layers.get(layerId) ?? { coats: 0, planned: 0, filmUm: 0, plannedUm: 0 };
    layers.set(layerId, known);
    return known;
  };
  const own = states.filter((s) => s.cell.areaId === areaId);
  // Where it was made ground again, what lies below is film, and counts for the colour no more.
  const [anewOn, anewPlanned] = [
    own.findLastIndex((s) => s.cell.anew === true && !s.cell.spot && s.sprayedAt !== null),
    own.findLastIndex((s) => s.cell.anew === true && !s.cell.spot && s.leftOut === null),
  ];
  const buried = new Set(own.slice(0, Math.max(0, anewOn)).map((s) => cellKey(s.cell)));
  own.forEach(({ cell, leftOut }, i) => {
    // What goes on one place alone is that place's.
    if (leftOut !== null || cell.spot) return;
    if (i >= anewPlanned) at(cell.layerId).planned += cell.coats;
    at(cell.layerId).plannedUm += cell.coat.filmUm;
  });
  for (const [key, { laid }] of sprayed) {
    if (laid.areaId !== areaId) continue;
    // What the log keeps of it holds, whatever the plan says of that coat now.
    const cell = byKey.get(key);
    const on = isLaid(laid) && laid.layerId !== null ? laid : cell ? laidOf(cell) : null;
    // A log may have kept the coat of a mend without its place: the plan knows it.
    if (!on?.layerId || (on.spot ?? cell?.spot)) continue;
    if (!buried.has(key)) at(on.layerId).coats += on.coats;
    at(on.layerId).filmUm += on.filmUm;
  }
  const list = [...layers].map(([layerId, l]) => ({ layerId, ...l }));
  return {
    areaId,
    layers: list,
    filmUm: list.reduce((s, l) => s + l.filmUm, 0),
    plannedUm: list.reduce((s, l) => s + l.plannedUm, 0),
  };
}

/** A fault that was found at a coat on an area, and is neither mended nor put right since; null for none. */
export function foundOn(state: Pick<JobState, 'history'>, areaId: string): JobEvent | null {
  const here = state.history.filter((e) => e.cells.some((c) => c.areaId === areaId));
  const at = here.findLastIndex((e) => e.kind === 'fault' && e.checkId === null);
  const since = here.slice(at + 1);
  const isOver = since.some((e) => e.kind === 'mend' || (e.kind === 'note' && e.text.startsWith(PUT_RIGHT)));
  return at < 0 || isOver ? null : here[at]!;
}

/**
 * Coats of layers on one place: what its areas have, and what went on there alone since it was last ground.
 * @param areaIds areas the place lies on
 */
export function coatsAt(
  state: Pick<JobState, 'cells' | 'areas'>,
  layerIds: readonly string[],
  areaIds: readonly string[],
  spot: string,
): number {
  const on = (areaId: string): number => {
    const own = state.cells.filter((s) => s.cell.areaId === areaId && s.sprayedAt !== null);
    if (own.some((s) => s.cell.spot === spot))
      return own.reduce((sum, { cell }) => {
        if (cell.spot && cell.spot !== spot) return sum;
        return cell.anew ? 0 : sum + (layerIds.includes(cell.layerId) ? cell.coats : 0);
      }, 0);
    const area = state.areas.find((a) => a.areaId === areaId);
    return (area?.layers ?? []).reduce((sum, l) => sum + (layerIds.includes(l.layerId) ? l.coats : 0), 0);
  };
  return Math.max(0, ...areaIds.map(on));
}

/** Coats of a layer that are on, the least and the most over the areas that get it. */
export function coatsOn(
  state: JobState,
  layerId: string,
  areaIds?: readonly string[],
): { readonly least: number; readonly most: number } {
  const found = state.areas
    .filter((a) => !areaIds || areaIds.includes(a.areaId))
    .flatMap((a) => a.layers.filter((l) => l.layerId === layerId && (l.planned > 0 || l.coats > 0)));
  return found.length
    ? { least: Math.min(...found.map((l) => l.coats)), most: Math.max(...found.map((l) => l.coats)) }
    : { least: 0, most: 0 };
}

/** Film x area of a layer, planned and on, um m2 (that is ml of solids); by the m2 of each cell. */
export function solidsOn(
  state: JobState,
  of: (cell: Cell) => boolean,
): { readonly planned: number; readonly on: number } {
  let [planned, on] = [0, 0];
  for (const { cell, sprayedAt, leftOut } of state.cells) {
    if (!of(cell)) continue;
    const ml = cell.coat.filmUm * cell.areaM2;
    if (leftOut === null) planned += ml;
    if (sprayedAt !== null) on += ml;
  }
  return { planned, on };
}
