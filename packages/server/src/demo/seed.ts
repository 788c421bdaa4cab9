import { demoReadings } from '@steady-gleam/core/demo';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { doneOf, eventOf, jobState, laidOf, workOfJob, type JobEvent } from '@steady-gleam/core/jobs';
import { prepareLibrary, libraryOf } from '@steady-gleam/core/materials';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { START_PLAN, type JobDetail } from '@steady-gleam/contracts';
import type { Db } from '../db/open';
import { createRepos, type Repos } from '../resources/repos';
import { DEMO_JOBS } from './demoJobs';

/** What every demo reading is: nameless, cleared, by an instrument. */
const PLAIN = { label: '', objectId: null, state: 'cleared', doubt: null } as const;

const uuid = (key: number, part: number): string =>
  `1a47e000-0000-4000-8000-${(key * 1000 + part).toString(16).padStart(12, '0')}`;

/**
 * Fills an empty shop with the Lantern Pier demo. All people, pieces, colours and readings are invented; the readings come
 * from the film model with another hand, flake edge and noise than the program's defaults (seeded).
 */
export async function seedDemo(
  { jobs, cards, readings, products: shelf, guns, log }: Repos,
  start = new Date('2026-11-02T08:00:00Z'),
): Promise<void> {
  const shop = prepareLibrary();
  // An earlier program may have been cut off after its products: what is there stays.
  const has = new Set([...(await shelf.list()).map((p) => p.product.id), ...(await guns.list()).map((g) => g.gun.id)]);
  const products = STARTING_PRODUCTS.filter((p) => !has.has(p.id));
  if (products.length) await shelf.add(products);
  for (const gun of STARTING_GUNS.filter((g) => !has.has(g.id))) await guns.put(gun.id, 0, gun);
  let minutes = 0;
  const next = () => new Date(start.getTime() + (minutes += 7) * 60_000).toISOString();
  for (const demo of DEMO_JOBS) {
    const id = uuid(demo.key, 0);
    const { truth } = demo;
    let job = await jobs.create(
      {
        id,
        piece: demo.piece,
        matching: demo.matching,
        family: demo.family,
        mixId: truth.mixId,
        finishId: null,
        coats: null,
        target: null,
      },
      true,
    );
    if (demo.targetCoats !== null) {
      const maker = { ...truth, ...(demo.targetHand ? { hand: demo.targetHand } : {}) };
      await readings.add(
        { finishId: job.finishId },
        {
          id: uuid(demo.key, 1),
          kind: 'target',
          rungCoats: null,
          source: 'demo',
          ...PLAIN,
          takenAt: next(),
          readings: demoReadings(shop, maker, demo.targetCoats, ['1', '2', '3'], demo.key * 101, demo.lamps),
        },
      );
    }
    job = await jobs.change(id, {
      version: job.version,
      areas: [...demo.areas],
      ...(demo.objects ? { objects: [...demo.objects] } : {}),
      ...(demo.stacks ? { stacks: demo.stacks.map((s) => ({ ...s, layers: [...s.layers] })) } : {}),
      mixing: {
        ...{ products: {}, reducers: {}, added: {} },
        flake: demo.flake ?? null,
        gunId: (STARTING_GUNS.find((g) => g.name === demo.gun) ?? STARTING_GUNS[0]!).id,
        temperatureC: 21,
        humidity: 0.55,
      },
    });
    for (const [i, [objectId, coats]] of Object.entries(demo.objectTargets ?? {}).entries())
      await readings.add(
        { jobId: id },
        {
          ...PLAIN,
          id: uuid(demo.key, 200 + i),
          kind: 'target',
          rungCoats: null,
          source: 'demo',
          objectId,
          takenAt: next(),
          readings: demoReadings(shop, truth, coats, ['1', '2', '3'], demo.key * 131 + i),
        },
      );
    if (demo.pick) job = await jobs.change(id, { version: job.version, pick: demo.pick });
    if (demo.rungs) {
      await cards.put(job.finishId, {
        id: uuid(demo.key, 2),
        rungs: [...demo.rungs],
        gun: demo.gun!,
        gunId: STARTING_GUNS.find((g) => g.name === demo.gun)?.id ?? null,
        pressureBar: 1.4,
        onStand: true,
        settings: {
          sealer: 'mid grey sealer',
          groundCoats: '3 coats, last one light',
          reducer: 'medium',
          ...{ distanceCm: 15, tipMm: null, overlap: 0.75, turns: null },
          temperatureC: 21,
          sameInstrument: true,
          ...{ eyeLittle: 1, eyeClear: 3 },
          patches: FAMILIES[demo.family].patches,
        },
        version: 0,
      });
      for (const coats of demo.rungs.slice(0, demo.rungsRead)) {
        await readings.add(
          { finishId: job.finishId },
          {
            id: uuid(demo.key, 10 + coats * 2),
            kind: 'rung',
            rungCoats: coats,
            source: 'demo',
            ...PLAIN,
            takenAt: next(),
            readings: demoReadings(shop, truth, coats, ['1'], demo.key * 101 + coats * 10, demo.lamps),
          },
        );
      }
    }
    if (demo.plan) job = await jobs.change(id, { version: job.version, plan: { ...START_PLAN, ...demo.plan } });
    if (demo.finished) {
      await log.add({ jobId: id }, runThrough(await jobs.read(id), demo.key, new Date(next())));
      const detail = await jobs.read(id);
      const work = workOf(detail)!;
      const done = doneOf(work.plan, jobState(work.plan, detail.events), truth.mixId, next());
      await jobs.change(id, { version: job.version, status: 'finished', done });
    }
  }
}

const workOf = (detail: JobDetail) =>
  workOfJob({ ...detail, library: libraryOf([]), products: STARTING_PRODUCTS, guns: STARTING_GUNS });

/** The log of a job that was sprayed step by step to its end, a step every half hour. */
function runThrough(detail: JobDetail, key: number, from: Date): JobEvent[] {
  const work = workOf(detail);
  const events: JobEvent[] = [];
  for (let i = 0; work; i++) {
    const { next } = jobState(work.plan, events);
    if (!next) break;
    const about = { id: uuid(key, 300 + i), at: from.getTime() + i * 30 * 60_000 };
    events.push(
      next.is === 'cell'
        ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(next.state.cell)] })
        : eventOf({ ...about, kind: 'check', checkId: next.state.check.id }),
    );
  }
  return events;
}

/** Set once a database was filled, or was looked at to be: a shop that took all its jobs out gets no demo. */
const FILLED = 'filled';

/** Puts the demo into a database that is new, in one transaction: all of it or none. */
export async function fillWithDemo(db: Db): Promise<void> {
  await db.transaction(async (tx) => {
    const repos = createRepos(tx);
    if ((await repos.door.setting(FILLED)) !== null) return;
    if ((await repos.jobs.count()) === 0) await seedDemo(repos);
    await repos.door.set(FILLED, true);
  });
}

/** Leaves a database that is new empty, and says so in it. */
export async function fillWithNothing(db: Db): Promise<void> {
  const { door } = createRepos(db);
  if ((await door.setting(FILLED)) === null) await door.set(FILLED, true);
}
