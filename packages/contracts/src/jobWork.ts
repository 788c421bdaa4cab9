import {
  boothPieces,
  createFilm,
  findGround,
  findSystem,
  layersOf,
  mergeLibrary,
  planJob,
  REFERENCE_LIBRARY,
  STARTING_GUNS,
  type Gun,
  type JobPlan,
  type Library,
  type OwnMaterial,
  type PieceStack,
  type Product,
  type StackLayer,
} from '@steady-gleam/core';
import { START_MIXING, START_PIECES, type Choice, type Job } from './jobs';
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
  /** From substrate to clear, the parts of a two-tone piece one after the other. */
  readonly layers: readonly StackLayer[];
  readonly gun: Gun;
  readonly plan: JobPlan;
}

/**
 * Coats, order and waits of a job: the same on the plan's page, in the booth, on the sheet and in the list of jobs.
 * @param settings a plan that is being changed; the job's own if left out
 * @param choice stands in while nothing is picked. @returns null when nothing is picked and nothing stands in
 */
export function workOfJob(q: {
  readonly job: Pick<Job, 'systemId' | 'choice' | 'stacks' | 'pieces' | 'mixing' | 'plan'>;
  readonly library: Library;
  readonly products: readonly Product[];
  readonly guns: readonly Gun[];
  readonly settings?: SprayPlan;
  readonly choice?: Choice;
}): JobWork | null {
  const { job, library } = q;
  const choice = job.choice ?? q.choice;
  const stacks = job.stacks ?? (choice ? stacksOfPick(job.systemId, choice, library) : null);
  if (!stacks) return null;
  const layers = stacks.flatMap((s) => s.layers);
  const mixing = job.mixing ?? START_MIXING;
  const gun = q.guns.find((g) => g.id === mixing.gunId) ?? q.guns[0] ?? STARTING_GUNS[0]!;
  const plan = planJob({
    layers,
    library,
    products: q.products,
    named: mixing.products,
    reducers: mixing.reducers ?? {},
    gun,
    pieces: boothPieces(job.pieces ?? START_PIECES),
    temperatureC: mixing.temperatureC,
    humidity: mixing.humidity,
    settings: q.settings ?? job.plan ?? START_PLAN,
  });
  return { layers, gun, plan };
}
