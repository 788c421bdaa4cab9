import {
  type FinishFamily,
  FAMILIES,
  createShop,
  demoReadings,
  STARTING_GUNS,
  STARTING_PRODUCTS,
  type DemoTruth,
} from '@steady-gleam/core';
import type { Choice, Piece } from '@steady-gleam/contracts';
import type { Db } from '../db/open';
import { createRepo, type Repo } from '../db/repo';
import { createShopRepo, type ShopRepo } from '../db/shopRepo';

/** One demo job: invented piece, truth its readings are made from, and how far it has come. */
interface DemoJob {
  readonly key: number;
  readonly piece: string;
  readonly matching: string;
  readonly family: FinishFamily;
  readonly truth: DemoTruth;
  /** Coats on the finish to be matched; null when it has not been read. */
  readonly targetCoats: number | null;
  /** Coats the target was sprayed with by the first maker's hand. */
  readonly targetHand?: DemoTruth['hand'];
  readonly choice?: Choice;
  readonly rungs?: readonly number[];
  readonly rungsRead?: number;
  readonly gun?: string;
  readonly finished?: boolean;
  readonly pieces: readonly Piece[];
}

const demoPiece = (
  id: string,
  name: string,
  shape: Piece['shape'],
  measures: Piece['measures'],
  more: Partial<Piece> = {},
): Piece => ({
  id,
  name,
  shape,
  measures,
  count: 1,
  x: null,
  y: null,
  mounting: 'object',
  first: false,
  ...more,
});

/** Lantern Pier, an invented fairground restoration workshop. */
const DEMO_JOBS: readonly DemoJob[] = [
  {
    key: 1,
    pieces: [demoPiece('cloth', 'Saddle cloth', 'area', { area: 0.42 }, { x: 2, y: 1.5, mounting: 'stand' })],
    piece: 'Carousel horse, saddle cloth',
    matching: 'the old cloth under the saddle flap',
    family: 'candy',
    truth: {
      groundId: 'gold',
      systemId: 'cinder-candy',
      strength: 1,
      style: 'light',
      hand: { film: 1, flake: 1, spread: 1 },
      edgeScale: 1,
    },
    targetCoats: null,
  },
  {
    key: 2,
    pieces: [
      demoPiece(
        'boards',
        'Fascia board',
        'panel',
        { width: 2.4, height: 0.45 },
        { count: 3, x: 2, y: 1.5, mounting: 'stand' },
      ),
    ],
    piece: 'Ticket-booth fascia',
    matching: 'the left-hand board, 1st bay',
    family: 'tinted-clear',
    truth: {
      groundId: 'gold',
      systemId: 'smoke-tea-clear',
      strength: 0.8,
      style: 'wet',
      hand: { film: 1.24, flake: 1, spread: 1.1 },
      edgeScale: 1.3,
    },
    targetCoats: 1.5,
    targetHand: { film: 0.95, flake: 1, spread: 1 },
    choice: { groundId: 'gold', coats: 1.5, strength: 0.8, style: 'wet', controlCoats: 0 },
    rungs: [1, 1.5, 2],
    rungsRead: 3,
    gun: 'Gun 1, 1.3 tip',
    finished: true,
  },
  {
    key: 3,
    pieces: [
      demoPiece('d11', 'Door 11', 'panel', { width: 0.7, height: 1.1 }, { x: 1.2, y: 1, mounting: 'stand' }),
      demoPiece('d12', 'Door 12', 'panel', { width: 0.7, height: 1.1 }, { x: 2.8, y: 1, mounting: 'stand' }),
    ],
    piece: 'Gondola doors 11 and 12',
    matching: 'door 10, hinge side',
    family: 'pearl',
    truth: {
      groundId: 'aqua-pastel',
      systemId: 'moonmilk-pearl',
      strength: 1.2,
      style: 'wet',
      hand: { film: 1.1, flake: 1, spread: 0.92 },
      edgeScale: 1.2,
    },
    targetCoats: 3,
  },
  {
    key: 4,
    pieces: [
      demoPiece('tub', 'Tub, outside', 'tub', { top: 1.7, bottom: 1.3, height: 0.75 }, { x: 2.2, y: 2 }),
      demoPiece('back', 'Backrest', 'panel', { width: 1.5, height: 0.6 }, { x: 4, y: 2, mounting: 'stand' }),
      demoPiece('rail', 'Grab rail', 'tube', { diameter: 0.04, length: 3.2 }, { x: 4, y: 0.8, mounting: 'stand' }),
      demoPiece('door', 'Tub door, edges', 'area', { area: 0.25 }, { x: 3.1, y: 3.2, first: true }),
    ],
    piece: 'Waltzer tub 3',
    matching: 'tub 5, backrest',
    family: 'candy',
    truth: {
      groundId: 'silver-fine',
      systemId: 'cinder-candy',
      strength: 1,
      style: 'wet',
      hand: { film: 1.12, flake: 1, spread: 1.08 },
      edgeScale: 1.15,
    },
    targetCoats: 3,
    targetHand: { film: 0.92, flake: 1, spread: 1.04 },
    choice: { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 },
  },
  {
    key: 5,
    pieces: [
      demoPiece('shell', 'Shell, outside', 'area', { area: 3.1 }, { x: 2, y: 2 }),
      demoPiece('bonnet', 'Bonnet lid', 'panel', { width: 0.8, height: 0.7 }, { x: 4, y: 2, mounting: 'stand' }),
      demoPiece('edges', 'Seat well edges', 'area', { area: 0.3 }, { x: 2, y: 2, first: true }),
    ],
    piece: 'Dodgem shell 7',
    matching: 'shell 4, left side',
    family: 'pearl',
    truth: {
      groundId: 'aqua-pastel',
      systemId: 'lagoon-pearl',
      strength: 1,
      style: 'wet',
      hand: { film: 1.18, flake: 0.95, spread: 0.93 },
      edgeScale: 1.2,
    },
    targetCoats: 3,
    targetHand: { film: 1.02, flake: 1, spread: 0.97 },
    choice: { groundId: 'aqua-pastel', coats: 3, strength: 1, style: 'wet', controlCoats: 0 },
    rungs: [1, 2, 3, 4],
    rungsRead: 2,
    gun: 'Gun 2, 1.3 tip',
  },
];

/** What every demo reading is: nameless, cleared, by an instrument. */
const PLAIN = { label: '', state: 'cleared', doubt: null } as const;

const uuid = (key: number, part: number): string =>
  `1a47e000-0000-4000-8000-${(key * 1000 + part).toString(16).padStart(12, '0')}`;

/**
 * Fills an empty shop with the Lantern Pier demo. All people, pieces, colours and readings are invented; the readings come
 * from the film model with another hand, flake edge and noise than the program's defaults (seeded).
 */
export async function seedDemo(repo: Repo, store: ShopRepo, start = new Date('2026-11-02T08:00:00Z')): Promise<void> {
  const shop = createShop();
  // An earlier program may have been cut off after its products: what is there stays.
  const has = new Set([
    ...(await store.listProducts()).map((p) => p.product.id),
    ...(await store.listGuns()).map((g) => g.gun.id),
  ]);
  const products = STARTING_PRODUCTS.filter((p) => !has.has(p.id));
  if (products.length) await store.addProducts(products);
  for (const gun of STARTING_GUNS.filter((g) => !has.has(g.id))) await store.putGun(gun.id, 0, gun);
  let minutes = 0;
  const next = () => new Date(start.getTime() + (minutes += 7) * 60_000).toISOString();
  for (const demo of DEMO_JOBS) {
    const id = uuid(demo.key, 0);
    const { truth } = demo;
    let job = await repo.createJob(
      { id, piece: demo.piece, matching: demo.matching, family: demo.family, systemId: truth.systemId },
      true,
    );
    if (demo.targetCoats !== null) {
      const maker = { ...truth, ...(demo.targetHand ? { hand: demo.targetHand } : {}) };
      await repo.addReadings(id, {
        id: uuid(demo.key, 1),
        kind: 'target',
        rungCoats: null,
        source: 'demo',
        ...PLAIN,
        takenAt: next(),
        readings: demoReadings(shop, maker, demo.targetCoats, ['1', '2', '3'], demo.key * 101),
      });
    }
    job = await repo.changeJob(id, {
      version: job.version,
      pieces: [...demo.pieces],
      mixing: {
        products: {},
        flake: null,
        gunId: STARTING_GUNS[demo.key === 5 ? 1 : 0]!.id,
        temperatureC: 21,
        humidity: 0.55,
      },
    });
    if (demo.choice) job = await repo.changeJob(id, { version: job.version, choice: demo.choice });
    if (demo.rungs) {
      await repo.putCard(id, {
        id: uuid(demo.key, 2),
        rungs: [...demo.rungs],
        gun: demo.gun!,
        pressureBar: 1.4,
        onStand: true,
        settings: {
          sealer: 'grey sealer, grey 63',
          groundCoats: '3 coats, last one light',
          reducer: 'medium',
          distanceCm: 15,
          temperatureC: 21,
          patches: FAMILIES[demo.family].patches,
        },
        version: 0,
      });
      for (const coats of demo.rungs.slice(0, demo.rungsRead)) {
        await repo.addReadings(id, {
          id: uuid(demo.key, 10 + coats * 2),
          kind: 'rung',
          rungCoats: coats,
          source: 'demo',
          ...PLAIN,
          takenAt: next(),
          readings: demoReadings(shop, truth, coats, ['1'], demo.key * 101 + coats * 10),
        });
      }
    }
    if (demo.finished) await repo.changeJob(id, { version: job.version, status: 'finished' });
  }
}

/** Puts the demo into a database that has no job, in one transaction: all of it or none. */
export async function fillWithDemo(db: Db): Promise<void> {
  await db.transaction(async (tx) => {
    const repo = createRepo(tx);
    if ((await repo.countJobs()) === 0) await seedDemo(repo, createShopRepo(tx));
  });
}
