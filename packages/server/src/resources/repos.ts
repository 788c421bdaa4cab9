import type { Damaged } from '@steady-gleam/contracts';
import type { Db } from '../db/open';
import { UNTOLD, type TellDamage } from '../db/rows';
import { createBatchesRepo } from './batches/repo';
import { createCardsRepo } from './cards/repo';
import { createDoorRepo } from './door/repo';
import { createFinishesRepo } from './finishes/repo';
import { createGunsRepo } from './guns/repo';
import { createInboxRepo } from './inbox/repo';
import { createJobsRepo } from './jobs/repo';
import { createStackColours } from './jobs/stackColours';
import { createLimitsRepo } from './limits/repo';
import { createLogRepo } from './log/repo';
import { createMaterialsRepo } from './materials/repo';
import { createPhotosRepo } from './photos/repo';
import { createProductsRepo } from './products/repo';
import { createReadingsRepo } from './readings/repo';
import { createTryOutRepo } from './tryOut/repo';
import { createVerdictsRepo } from './verdicts/repo';

/** Everything the API reads and writes, by resource. Every change is one transaction. @param tell of rows that can't be read */
export function createRepos(db: Db, tell: TellDamage = UNTOLD) {
  const readings = createReadingsRepo(db);
  const verdicts = createVerdictsRepo(db);
  const photos = createPhotosRepo(db);
  const cards = createCardsRepo(db);
  const log = createLogRepo(db, tell);
  const limits = createLimitsRepo(db);
  const finishes = createFinishesRepo(db, { readings, verdicts, cards, photos }, tell);
  const materials = createMaterialsRepo(db, tell);
  const colours = createStackColours(async () => (await materials.list()).map((m) => m.material));
  const jobs = createJobsRepo(db, { finishes, readings, verdicts, photos, cards, log, limits, colours }, tell);
  const products = createProductsRepo(db, tell);
  const guns = createGunsRepo(db, tell);
  const batches = createBatchesRepo(db, tell);
  const all = { jobs, finishes, cards, readings, verdicts, photos, materials, products, guns, batches, log, limits };
  return {
    ...all,
    tryOut: createTryOutRepo(db, jobs),
    inbox: createInboxRepo(db),
    /** Codes and devices: of no list of the shop's. */
    door: createDoorRepo(db),
    colours,
    /** What the shop has, for a plan, a paper or a file. */
    shelf: async () => ({
      own: (await materials.list()).map((m) => m.material),
      products: (await products.list()).map((p) => p.product),
      guns: (await guns.list()).map((g) => g.gun),
    }),
    /** What touches several of them, all of it or nothing. */
    inOne: <T>(work: (tx: Db) => Promise<T>): Promise<T> => db.transaction(work),
    /** Rows of every kind that can't be read. */
    damaged: async (): Promise<Damaged[]> =>
      (await Promise.all([jobs, finishes, products, guns, batches, materials, log].map((r) => r.damaged()))).flat(),
  };
}

export type Repos = ReturnType<typeof createRepos>;
