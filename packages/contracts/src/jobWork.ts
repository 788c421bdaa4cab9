import {
  coatsOn,
  createFilm,
  findGround,
  findSystem,
  layersOf,
  mergeLibrary,
  planJob,
  REFERENCE_LIBRARY,
  sayStep,
  sprayAreas,
  STARTING_GUNS,
  type Gun,
  type JobFinish,
  type JobPlan,
  type JobPlanInput,
  type JobState,
  type Library,
  type OwnMaterial,
  type PieceStack,
  type Product,
} from '@steady-gleam/core';
import {
  areasOf,
  objectsOf,
  START_MIXING,
  type Card,
  type Choice,
  type Done,
  type Job,
  type LayerFilm,
  type RunState,
} from './jobs';
import { START_PLAN, type SprayPlan } from './spray';

/** The shop's materials beside those of the reference library. */
export function libraryOf(own: readonly OwnMaterial[]): Library {
  return mergeLibrary(createFilm(), REFERENCE_LIBRARY, own);
}

/** The one stack that follows from a pick. */
export function stacksOfPick(systemId: string, choice: Choice, library: Library): readonly PieceStack[] {
  const ground = findGround(choice.groundId, library.grounds);
  const system = findSystem(systemId, library.systems);
  return [{ id: 'main', name: 'whole piece', layers: layersOf(ground, system, choice) }];
}

export interface JobWork {
  readonly gun: Gun;
  readonly plan: JobPlan;
}

/** The gun a job is sprayed with: the one it names, else its card's, else the shop's first. */
function gunOf(guns: readonly Gun[], gunId: string | null, card: Pick<Card, 'gun'> | null): Gun {
  return guns.find((g) => g.id === gunId) ?? guns.find((g) => g.name === card?.gun) ?? guns[0] ?? STARTING_GUNS[0]!;
}

interface WorkInput {
  readonly job: Pick<Job, 'piece' | 'systemId' | 'choice' | 'stacks' | 'objects' | 'areas' | 'mixing' | 'plan'>;
  readonly card: Pick<Card, 'gun' | 'pressureBar' | 'settings' | 'rungs'> | null;
  readonly library: Library;
  readonly products: readonly Product[];
  readonly guns: readonly Gun[];
  readonly settings?: SprayPlan;
  readonly choice?: Choice;
}

/** What the plan of a job and that of its card have in common; null when nothing is picked and nothing stands in. */
function planInput(q: WorkInput): Omit<JobPlanInput, 'objects' | 'areas'> | null {
  const { job, card, library } = q;
  const choice = job.choice ?? q.choice;
  const stacks = job.stacks ?? (choice ? stacksOfPick(job.systemId, choice, library) : null);
  if (!stacks) return null;
  const mixing = job.mixing ?? START_MIXING;
  return {
    finishes: stacks.map((s, i): JobFinish => {
      const mix = s.layers.find((l) => l.kind === 'effect')?.materialId;
      return { id: s.id, name: s.name, layers: s.layers, systemId: i && mix ? mix : job.systemId };
    }),
    library,
    products: q.products,
    named: mixing.products,
    reducers: mixing.reducers ?? {},
    gun: gunOf(q.guns, mixing.gunId, card),
    temperatureC: mixing.temperatureC,
    humidity: mixing.humidity,
    settings: q.settings ?? job.plan ?? START_PLAN,
    cards: card ? { [job.systemId]: { distanceCm: card.settings.distanceCm, pressureBar: card.pressureBar } } : {},
  };
}

/**
 * The plan of a job: the same on the plan's page, in the booth, on the sheet and in the list of jobs.
 * `card`: its set-up is the plan's where the painter changed nothing; `settings`: a plan that is being changed, the job's own if
 * left out; `choice` stands in while nothing is picked. @returns null when nothing is picked and nothing stands in
 */
export function workOfJob(q: WorkInput): JobWork | null {
  const input = planInput(q);
  if (!input) return null;
  const plan = planJob({
    ...input,
    objects: objectsOf(q.job),
    areas: sprayAreas(areasOf(q.job), input.finishes),
  });
  return { gun: input.gun, plan };
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
  const effect = finish.layers.find(
    (l) => l.kind === 'effect' && l.materialId === finish.systemId && l.style !== 'control',
  );
  if (!effect) return null;
  const rungs = [...q.card.rungs].sort((a, b) => b - a);
  const plan = planJob({
    ...input,
    finishes: [finish],
    objects: [{ id: CARD, name: 'the card', counts: [{ finishId: finish.id, coats: null, lookAfter: 0 }] }],
    areas: rungs.map((n, i) => ({
      ...{ id: `rung-${n}`, name: `rung ${n}`, x: i * 0.1, y: 0, areaM2: RUNG_M2, first: false },
      ...{ objectId: CARD, finishId: finish.id, on: null, loose: false, lengthCm: 10 },
    })),
    settings: {
      ...input.settings,
      bake: false,
      order: rungs.map((n) => `rung-${n}`),
      cells: rungs.map((n) => ({ areaId: `rung-${n}`, layerId: effect.id, coats: n, reach: null })),
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
    const { finishId, ...layer } = l;
    // As many coats as the area gets that gets most of them.
    const coats = Math.max(...here.map((o) => Math.max(o.planned, o.coats)));
    return [
      {
        finishId,
        layer: { ...layer, coats },
        onUm: mean((o) => o.filmUm),
        plannedUm: mean((o) => o.plannedUm),
      },
    ];
  });
}

/** Where a job stands, as the list tells it; null before anything of it was begun. */
export function runOf(plan: JobPlan, state: JobState): RunState | null {
  if (state.started === null) return null;
  return {
    done: state.done,
    total: state.total,
    next: state.next && sayStep(plan, state.next),
    isCoat: state.next?.is === 'cell',
    readyAt: state.readyAt,
    closesAt: state.closesAt,
  };
}

/** What is on of a job, as it is kept when it is finished. @param systemId the job's own mix. @param at ISO */
export function doneOf(plan: JobPlan, state: JobState, systemId: string, at: string): Done {
  const layerIds = plan.layers
    .filter((l) => l.kind === 'effect' && l.materialId === systemId && l.style !== 'control')
    .map((l) => l.id);
  return {
    at,
    sprays: state.done,
    planned: state.total,
    counts: plan.objects.map((o) => ({
      objectId: o.id,
      name: o.name,
      coats: Math.max(
        0,
        ...plan.areas
          .filter((a) => a.objectId === o.id)
          .map((a) => layerIds.reduce((sum, l) => sum + coatsOn(state, l, [a.id]).most, 0)),
      ),
    })),
    film: filmOf(plan, state),
  };
}
