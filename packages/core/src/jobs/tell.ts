import { LET_DOWN, type JobEvent } from './events';
import type { PlanNames } from './say';
import { laidOf } from './whatIsOn';
import { type CellState } from './stateTypes';

/** What is told of an event; its id and time are made where it happens. */
export type Told = Partial<Omit<JobEvent, 'id' | 'at'>> & Pick<JobEvent, 'kind'>;

/** What of a job's state is asked for what the desk tells. */
interface Sprays {
  readonly cells: readonly Pick<CellState, 'cell' | 'sprayedAt' | 'leftOut'>[];
}

/**
 * What the desk tells when a coat went on without a tap in the booth: the next planned coat of the layers on each area, with
 * what must lie under it; where none is planned any more, a coat more than the plan.
 * @param newId makes a fresh id a call
 */
export function nextCoatTold(
  state: Sprays,
  layerIds: readonly string[],
  areaIds: readonly string[],
  newId: () => string,
): Told[] {
  const cells = areaIds.flatMap((areaId) => {
    const own = state.cells.filter((s) => s.cell.areaId === areaId && s.leftOut === null);
    const at = own.findIndex((s) => layerIds.includes(s.cell.layerId) && s.sprayedAt === null);
    return at < 0 ? [] : own.slice(0, at + 1).filter((s) => s.sprayedAt === null);
  });
  if (cells.length) return [{ kind: 'sprayed', cells: cells.map((s) => laidOf(s.cell)) }];
  return extraTold(state, layerIds, areaIds, 1, true, newId);
}

/**
 * A coat, a half or a quarter more than is planned, said to be on already or still to be laid.
 * @param letDown laid of the mix let down 1:1, which takes twice as much of it
 */
export function extraTold(
  state: Sprays,
  layerIds: readonly string[],
  areaIds: readonly string[],
  coats: number,
  isOn: boolean,
  newId: () => string,
  letDown = false,
): Told[] {
  const layerId = layerIds[0];
  if (layerId === undefined) return [];
  const here = areaIds.filter((a) => state.cells.some((s) => s.cell.areaId === a && s.cell.layerId === layerId));
  if (!here.length) return [];
  const cells = here.map((areaId) => ({ coatId: newId(), areaId }));
  const last = (areaId: string) => state.cells.findLast((s) => s.cell.areaId === areaId && s.cell.layerId === layerId)!;
  const laid = cells.map((c) => {
    const { coat } = last(c.areaId).cell;
    const full = coat.filmUm / Math.max(0.05, last(c.areaId).cell.coats);
    return { ...c, layerId, name: letDown ? `${coat.name}, ${LET_DOWN}` : coat.name, coats, filmUm: full * coats };
  });
  return [
    { kind: 'extra', layerId, coats, cells, ...(letDown ? { text: LET_DOWN } : {}) },
    ...(isOn ? [{ kind: 'sprayed' as const, cells: laid }] : []),
  ];
}

/** What is left of some layers on some areas is left out: enough is on. */
export function enoughTold(
  state: Sprays,
  layerIds: readonly string[],
  areaIds: readonly string[],
  text: string,
): Told[] {
  const cells = state.cells
    .filter(
      (s) =>
        areaIds.includes(s.cell.areaId) &&
        layerIds.includes(s.cell.layerId) &&
        s.sprayedAt === null &&
        s.leftOut === null,
    )
    .map(({ cell: { coatId, areaId } }) => ({ coatId, areaId }));
  return cells.length ? [{ kind: 'skip', cells, text }] : [];
}

/** Areas of a plan by their names. */
export const namesOf = (plan: Pick<PlanNames, 'areas'>, ids: readonly string[]): string[] =>
  ids.flatMap((id) => plan.areas.find((a) => a.id === id)?.name ?? []);

/** The last tap is taken back, all that it told. */
export const undoTold = ({ undoable }: { readonly undoable: readonly JobEvent[] }): Told[] =>
  undoable.map((e) => ({ kind: 'undo', text: e.id }));
