import type { ClearState } from '../finishes/texture';
import type { FinishFamily } from '../finishes/families';
import { countsControl } from '../finishes/recipe';
import { pieceArea } from '../mixing/batch';
import type { StackLayer } from '../finishes/layers';
import type { BoothArea } from '../booth/order';
import type { CoatEdit, PlannedCoat, School } from '../spraying/coatPlan';
import { START_OBJECT, type AreaRow } from './areaRow';
import type { CellRef } from './events';
import type { Reach } from './reach';

/** What a job lays on an area: a finish's layers from substrate to clear. */
export interface JobFinish {
  readonly id: string;
  readonly name: string;
  /** The mix that its card and its target are about. */
  readonly mixId: string;
  readonly layers: readonly StackLayer[];
  /** Of its mix; left out where it has none. */
  readonly family?: FinishFamily;
  /** Coats after which its card says to look first; null or left out while it has not spoken. */
  readonly firstStop?: number | null;
}

/** Effect coats of a finish on one object. */
export interface ObjectCount {
  readonly finishId: string;
  /** As the object's own target asks for; null for the finish's own count. */
  readonly coats: number | null;
  /** The advice's stop: after so many effect coats it is looked at; null for the usual one. */
  readonly lookAfter: number | null;
}

/** What is looked at as one: a coach, a shell with its loose parts. */
export interface JobObject {
  readonly id: string;
  readonly name: string;
  readonly counts: readonly ObjectCount[];
}

/** What is sprayed in one go: a panel, jambs, a stripe, letters. */
export interface SprayArea extends BoothArea {
  readonly objectId: string;
  readonly finishId: string;
  /** The area it lies masked on, a stripe or letters; null for one of its own. */
  readonly on: string | null;
  /** Hangs on a stand, and is mounted as on the object for the effect coats. */
  readonly loose: boolean;
  /** Along which a blend ends, cm. */
  readonly lengthCm: number;
  /** Cleared where left out. */
  readonly clear?: ClearState;
}

/** What a painter changed of a layer on one area; null leaves what the finish and the object say. */
export interface CellEdit {
  readonly areaId: string;
  readonly layerId: string;
  readonly coats: number | null;
  readonly reach: Reach | null;
}

/** Areas by shape and measures, as they stand in the booth; those not placed yet stand in a row. */
export function sprayAreas(
  areas: readonly (Omit<AreaRow, 'clear'> & Partial<Pick<AreaRow, 'clear'>>)[],
  finishes: readonly Pick<JobFinish, 'id'>[],
): SprayArea[] {
  return areas.map((a, i) => {
    const areaM2 = pieceArea(a) ?? 0.1;
    return {
      id: a.id,
      name: a.name,
      x: a.x ?? 1 + (i % 4) * 1.3,
      y: a.y ?? 1 + Math.floor(i / 4) * 1.3,
      areaM2,
      first: a.first,
      objectId: a.objectId,
      finishId: finishes.find((f) => f.id === a.finishId)?.id ?? finishes[0]!.id,
      on: areas.some((b) => b.id === a.on && b.id !== a.id && b.on === null) ? a.on : null,
      loose: a.mounting === 'stand',
      clear: a.clear ?? 'cleared',
      lengthCm: 100 * (a.measures['width'] ?? a.measures['length'] ?? Math.sqrt(areaM2)),
    };
  });
}

/** What the painter set for the spraying of a job. */
export interface SpraySettings {
  readonly school: School;
  readonly grip: boolean;
  readonly tack: boolean;
  /** Air moved over drying films; never over two-pack. */
  readonly blown: boolean;
  /** Standing and a bake after the last coat. */
  readonly bake: boolean;
  /** Where the air goes, degrees from the x axis towards the y axis. */
  readonly airTowards: number;
  /** The painter's own order of areas; null for the advised one. */
  readonly order: readonly string[] | null;
  readonly edits: Readonly<Record<string, CoatEdit>>;
  /** Coats and reaches changed on single areas. */
  readonly cells: readonly CellEdit[];
  /** Least wait before a two-pack clear over solvent or water base, minutes; null for the usual one. */
  readonly beforeClearMinutes?: number | null;
}

/** One coat on one area: what the plan is made of. */
export interface Cell extends CellRef {
  readonly objectId: string;
  readonly finishId: string;
  readonly layerId: string;
  readonly coat: PlannedCoat;
  readonly reach: Reach;
  /** m2 it is laid on. */
  readonly areaM2: number;
  /** Coats of its layer it counts for; 0 for grip and tack. */
  readonly coats: number;
  /** Cells of one round are laid one after the other, area by area. */
  readonly round: string;
  /** Cells that must be on before it, whatever of them is left out. */
  readonly under: readonly CellRef[];
  /** Checks that must be over before it. */
  readonly checks: readonly string[];
  /** Flash today, minutes; as typed where it was typed. */
  readonly flashMinutes: number;
  readonly typed: boolean;
  /** How long after it the next may go on, minutes; null where the sheet names no window. */
  readonly recoatMinutes: number | null;
  /** Place it goes on alone, of a mend; left out or null where it goes on the whole area. */
  readonly spot?: string | null;
  /** What lies below it counts no more for the colour: it is ground again. */
  readonly anew?: boolean;
}

/** A layer of the job, under the id it has among those of all its finishes. */
export interface JobLayer extends StackLayer {
  readonly finishId: string;
  /** Its coats are among the count of the finish's mix. */
  readonly counted: boolean;
}

/** Control coats are among the count. */
const ofControl = ({ family }: Pick<JobFinish, 'family'>): boolean => family !== undefined && countsControl(family);

/** Whether a layer is among the count of a finish's mix: its effect coats, and its control coats where its family counts them. */
export const isCounted = (finish: Pick<JobFinish, 'mixId' | 'family'>, layer: StackLayer): boolean =>
  layer.kind === 'effect' && layer.materialId === finish.mixId && (ofControl(finish) || layer.style !== 'control');

/**
 * A count of all coats of a mix, by the layers that lay it: the first takes what the others leave; where control coats are counted
 * the layers fill up one after the other, and the last takes what is left.
 * @param counted in their order
 */
export function spreadCount(
  finish: Pick<JobFinish, 'family'>,
  counted: readonly StackLayer[],
  count: number,
): Map<string, number> {
  const out = new Map<string, number>();
  if (ofControl(finish)) {
    let left = count;
    counted.forEach((l, i) => {
      const own = i === counted.length - 1 ? left : Math.min(l.coats, left);
      out.set(l.id, own);
      left -= own;
    });
  } else {
    const others = counted.slice(1).reduce((sum, l) => sum + l.coats, 0);
    counted.forEach((l, i) => out.set(l.id, i ? l.coats : Math.max(0, count - others)));
  }
  return out;
}

/** Before the painter changed anything. */
export const START_SETTINGS: SpraySettings = {
  school: 'wet',
  grip: false,
  tack: true,
  blown: false,
  bake: true,
  airTowards: 0,
  order: null,
  edits: {},
  cells: [],
  beforeClearMinutes: null,
};

/** The objects of a job; while none were entered the piece itself is the one. */
export const objectsOf = <T extends JobObject>(job: {
  readonly objects: readonly T[] | null;
  readonly piece: string;
}): readonly (T | { readonly id: string; readonly name: string; readonly counts: [] })[] =>
  job.objects ?? [{ id: START_OBJECT, name: job.piece, counts: [] }];
