import type { PieceStack } from '../finishes/layers';
import type { Recipe } from '../finishes/recipe';
import type { Library } from '../materials/ownMaterials';
import { STARTING_GUNS, type Gun } from '../products/guns';
import type { Product } from '../products/products';
import {
  isCounted,
  objectsOf,
  sprayAreas,
  START_SETTINGS,
  spreadCount,
  type JobFinish,
  type JobObject,
  type SprayArea,
  type SpraySettings,
} from './job';
import { START_AREAS, type AreaRow } from './areaRow';
import { effectOn } from './effect';
import { unseenOf } from './evidence';
import { planJob } from './plan';
import { type JobPlan, type JobPlanInput } from './planTypes';
import { sayList } from './list';
import { sayStep } from './say';
import { stacksOfPick, type LayerFilm } from './stacks';
import type { PlannedCoat } from '../spraying/coatPlan';
import { setUpOf, setUpDifferences, type SetUp, type SetUpDifference } from '../spraying/setUp';
import type { JobState } from './stateTypes';

/** Products by layer, reducers by cup, gun and weather of a job. */
export interface JobMixing {
  readonly products: Readonly<Record<string, string>>;
  readonly reducers?: Readonly<Record<string, string>> | undefined;
  readonly gunId: string | null;
  readonly temperatureC: number;
  /** Relative, fraction. */
  readonly humidity: number;
}

/** A job as it is stored, as far as its plan follows from it. */
export interface JobRow {
  readonly piece: string;
  readonly mixId: string;
  readonly pick: Recipe | null;
  readonly stacks: readonly PieceStack[] | null;
  readonly objects: readonly JobObject[] | null;
  readonly areas: readonly AreaRow[] | null;
  readonly mixing: JobMixing | null;
  readonly plan: SpraySettings | null;
}

/** What the plan needs to know of a card: the set-up it was sprayed with, and its rungs. */
export interface CardRow {
  readonly gun: string;
  readonly pressureBar: number;
  readonly settings: Parameters<typeof setUpOf>[0]['settings'];
  readonly rungs: readonly number[];
  /** Coats after which it says to look first. */
  readonly firstStop?: number | null;
}

/** Before the painter said anything: a mild booth. */
const MILD: JobMixing = { products: {}, gunId: null, temperatureC: 20, humidity: 0.5 };

export interface JobWork {
  readonly gun: Gun;
  readonly plan: JobPlan;
}

/** The gun a job is sprayed with: the one it names, else its card's, else the shop's first. */
function gunOf(guns: readonly Gun[], gunId: string | null, card: Pick<CardRow, 'gun'> | null): Gun {
  return guns.find((g) => g.id === gunId) ?? guns.find((g) => g.name === card?.gun) ?? guns[0] ?? STARTING_GUNS[0]!;
}

export interface WorkInput {
  readonly job: JobRow;
  readonly card: CardRow | null;
  readonly library: Library;
  readonly products: readonly Product[];
  readonly guns: readonly Gun[];
  /** A plan that is being changed; the job's own if left out. */
  readonly settings?: SpraySettings;
  /** Stands in while nothing is picked. */
  readonly pick?: Recipe;
}

/** What the plan of a job and that of its card have in common; null when nothing is picked and nothing stands in. */
function planInput(q: WorkInput): Omit<JobPlanInput, 'objects' | 'areas'> | null {
  const { job, card, library } = q;
  const pick = job.pick ?? q.pick;
  const stacks = job.stacks ?? (pick ? stacksOfPick(job.mixId, pick, library) : null);
  if (!stacks) return null;
  const mixing = job.mixing ?? MILD;
  return {
    finishes: stacks.map((s, i): JobFinish => {
      const mix = s.layers.find((l) => l.kind === 'effect')?.materialId;
      const firstStop = i ? null : (card?.firstStop ?? null);
      const mixId = i && mix ? mix : job.mixId;
      const family = library.systems.find((m) => m.id === mixId)?.family;
      return {
        ...{ id: s.id, name: s.name, layers: s.layers, mixId, firstStop },
        ...(family === undefined ? {} : { family }),
      };
    }),
    library,
    products: q.products,
    named: mixing.products,
    reducers: mixing.reducers ?? {},
    gun: gunOf(q.guns, mixing.gunId, card),
    temperatureC: mixing.temperatureC,
    humidity: mixing.humidity,
    settings: q.settings ?? job.plan ?? START_SETTINGS,
    cards: card ? { [job.mixId]: setUpOf(card) } : {},
  };
}

/**
 * The plan of a job: the same on the plan's page, in the booth, on the sheet and in the list of jobs. The card's set-up is the
 * plan's where the painter changed nothing. @returns null when nothing is picked and nothing stands in
 */
export function workOfJob(q: WorkInput): JobWork | null {
  const input = planInput(q);
  if (!input) return null;
  const areas = sprayAreas(q.job.areas ?? START_AREAS, input.finishes);
  return { gun: input.gun, plan: planJob({ ...input, objects: objectsOf(q.job), areas }) };
}

/** A full effect coat of a mix, as planned; null where the plan lays none. */
export const fullCoatOf = (plan: JobPlan, mixId: string): PlannedCoat | null =>
  plan.cells.find(
    (c) =>
      c.coats > 0 &&
      c.coat.style !== 'control' &&
      plan.layers.some((l) => l.id === c.layerId && l.kind === 'effect' && l.materialId === mixId),
  )?.coat ?? null;

/** What a plan lays otherwise than a card of a mix was sprayed; nothing where it does not lay that mix. */
export function planAgainstCard(card: SetUp, plan: JobPlan, mixId: string): SetUpDifference[] {
  const coat = fullCoatOf(plan, mixId);
  return coat ? setUpDifferences(card, plan.gun, coat) : [];
}

/** Area of a rung, m2: a hand's breadth; ours. */
const RUNG_M2 = 0.01;
/** The object that a card is in its own run. */
const CARD = 'card';

/**
 * The plan of a job's card: laid as the job's coats are, each rung an area that stops at its own count. All rungs go on together,
 * and one after the other is masked. @returns null without a card, or when nothing is picked
 */
export function workOfCard(q: WorkInput): JobWork | null {
  const input = planInput(q);
  if (!input || !q.card) return null;
  const finish = input.finishes[0]!;
  const counted = finish.layers.filter((l) => isCounted(finish, l));
  if (!counted.length) return null;
  const rungs = [...q.card.rungs].sort((a, b) => b - a);
  const areas = rungs.map((n, i): SprayArea => ({
    ...{ id: `rung-${n}`, name: `rung ${n}`, x: i * 0.1, y: 0, areaM2: RUNG_M2, first: false },
    ...{ objectId: CARD, finishId: finish.id, on: null, loose: false, lengthCm: 10 },
  }));
  const plan = planJob({
    ...input,
    finishes: [finish],
    objects: [{ id: CARD, name: 'the card', counts: [{ finishId: finish.id, coats: null, lookAfter: 0 }] }],
    areas,
    settings: {
      ...input.settings,
      bake: false,
      order: areas.map((a) => a.id),
      cells: areas.flatMap((a, i) =>
        [...spreadCount(finish, counted, rungs[i]!)].map(([layerId, coats]) => ({
          ...{ areaId: a.id, layerId, coats, reach: null },
        })),
      ),
    },
  });
  return { gun: input.gun, plan };
}

/** Film of every layer of a job that is laid somewhere, in their order: what film sections draw. */
export function filmOf(plan: JobPlan, state: JobState): LayerFilm[] {
  return plan.layers.flatMap((l) => {
    const here = state.areas.flatMap((a) => a.layers.filter((o) => o.layerId === l.id));
    if (!here.length) return [];
    const mean = (of: (o: (typeof here)[number]) => number) => here.reduce((s, o) => s + of(o), 0) / here.length;
    const { finishId, id, kind, materialId, style, strength, filmUm } = l;
    // As many coats as the area gets that gets most of them.
    const coats = Math.max(...here.map((o) => Math.max(o.planned, o.coats)));
    const layer = { id, kind, materialId, coats, style, strength, filmUm };
    return [{ finishId, layer, onUm: mean((o) => o.filmUm), plannedUm: mean((o) => o.plannedUm) }];
  });
}

/** Where a job stands, as its log says: what the list of jobs tells of it. */
export interface RunState {
  readonly done: number;
  readonly total: number;
  /** The next step, as it is said; null when nothing is left to do. */
  readonly next: string | null;
  /** The next step is a coat; false for a look and the like. */
  readonly isCoat: boolean;
  /** When the next may go on by the clock, ms since 1970; null when nothing is waited for. */
  readonly readyAt: number | null;
  /** When the recoat window of what lies below it closes, ms since 1970; null where it has none. */
  readonly closesAt: number | null;
  /** What no eye has seen yet of what lies there, a clause; null when nothing is missing or no effect is on. */
  readonly unseen: string | null;
}

/** Where a job stands, as the list tells it; null before anything of it was begun. */
export function runOf(plan: JobPlan, state: JobState): RunState | null {
  if (state.started === null) return null;
  const unseen = unseenOf(plan, state).map(
    ({ name, missing }) => `${plan.objects.length > 1 ? `${name} ` : ''}not looked at by eye ${sayList(missing)}`,
  );
  return {
    done: state.done,
    total: state.total,
    next: state.next && sayStep(plan, state.next),
    isCoat: state.next?.is === 'cell',
    readyAt: state.readyAt,
    closesAt: state.closesAt,
    unseen: unseen.length ? unseen.join('; ') : null,
  };
}

/** What was done when a job was finished, as its log had it then. */
export interface Done {
  /** ISO. */
  readonly at: string;
  readonly sprays: number;
  readonly planned: number;
  /** Effect coats of the job's own mix that are on, by object. */
  readonly counts: { readonly objectId: string; readonly name: string; readonly coats: number }[];
  readonly film: LayerFilm[];
}

/** What is on of a job, as it is kept when it is finished. @param mixId the job's own mix. @param at ISO */
export function doneOf(plan: JobPlan, state: JobState, mixId: string, at: string): Done {
  return {
    at,
    sprays: state.done,
    planned: state.total,
    counts: plan.objects.map((o) => ({
      objectId: o.id,
      name: o.name,
      coats: effectOn(plan, state, mixId, o.id).most,
    })),
    film: filmOf(plan, state),
  };
}
