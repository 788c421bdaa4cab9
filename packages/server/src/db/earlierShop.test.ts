import { describe, expect, it } from '@jest/globals';
import { type JobDetail } from '@steady-gleam/contracts';
import { jobState, workOfJob } from '@steady-gleam/core/jobs';
import { libraryOf } from '@steady-gleam/core/materials';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';
import { sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openEmbedded } from './open';
import { createRepos } from '../resources/repos';
import type { TellDamage } from './rows';
import { MIGRATIONS } from '../testdata/testDb';

describe('a database of an earlier program', () => {
  /** The program as it was before: its MIGRATIONS up to one of them. */
  const upTo = (last: number, folder: string): string => {
    const before = join(folder, 'MIGRATIONS');
    cpSync(MIGRATIONS, before, { recursive: true });
    const file = join(before, 'meta/_journal.json');
    const journal = JSON.parse(readFileSync(file, 'utf8')) as { entries: { idx: number }[] };
    writeFileSync(file, JSON.stringify({ ...journal, entries: journal.entries.filter((e) => e.idx <= last) }));
    return before;
  };
  const unharmed: TellDamage = (_, faults) => {
    throw new Error(JSON.stringify(faults));
  };

  it('keeps every piece, tap and look: a job becomes one object of areas, further stacks lie on them', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-pieces-'));
    const old = await openEmbedded(upTo(7, folder), folder);
    const [plain, two, bare] = [randomUUID(), randomUUID(), randomUUID()];
    const choice = { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 };
    const piece = (id: string, more: object = {}) => ({
      ...{ id, name: `Piece ${id}`, shape: 'area', measures: { area: 1.5 }, count: 1, x: 1, y: 2 },
      ...{ mounting: 'stand', first: false, ...more },
    });
    const layer = (id: string, kind: string, materialId: string | null, coats: number) => ({
      ...{ id, kind, materialId, coats, style: 'wet', strength: 1, filmUm: 12 },
    });
    const stacks = [
      {
        id: 'main',
        name: 'body',
        layers: [
          layer('g', 'ground', 'white', 2),
          layer('e', 'effect', 'cinder-candy', 3),
          layer('c', 'clear', null, 2),
        ],
      },
      {
        id: 'lines',
        name: 'lining',
        layers: [layer('g2', 'ground', 'gold', 1), layer('e2', 'effect', 'lagoon-pearl', 2)],
      },
    ];
    for (const [id, pieces, laid] of [
      [plain, [piece('tub'), piece('edge', { first: true })], null],
      [two, [piece('tub'), piece('back')], stacks],
      [bare, null, null],
    ] as const)
      await old.db.execute(
        sql`insert into jobs (id, piece, matching, family, system_id, choice, stacks, pieces) values (${id}, 'Old tub', 'tub 2', 'candy', 'cinder-candy', ${JSON.stringify(choice)}::jsonb, ${laid && JSON.stringify(laid)}::jsonb, ${pieces && JSON.stringify(pieces)}::jsonb)`,
      );
    const at = 1_764_000_000_000;
    const taps: { id: string; job: string; kind: string; coat: string | null; piece: string | null; text: string }[] = [
      { id: randomUUID(), job: plain, kind: 'start', coat: null, piece: null, text: '' },
      { id: randomUUID(), job: plain, kind: 'sprayed', coat: 'sealer/wet/1', piece: 'edge', text: '' },
      { id: randomUUID(), job: plain, kind: 'dull', coat: 'sealer/wet/1', piece: 'edge', text: '' },
      { id: randomUUID(), job: plain, kind: 'note', coat: 'sealer/wet/1', piece: 'edge', text: 'a nib' },
      { id: randomUUID(), job: two, kind: 'sprayed', coat: 'g/wet/1', piece: 'tub', text: '' },
      { id: randomUUID(), job: two, kind: 'sprayed', coat: 'g2/wet/1', piece: 'tub', text: '' },
    ];
    for (const [i, t] of taps.entries())
      await old.db.execute(
        sql`insert into booth_events (id, job_id, at, kind, coat_id, piece_id, text) values (${t.id}, ${t.job}, ${at + i}, ${t.kind}, ${t.coat}, ${t.piece}, ${t.text})`,
      );
    const looks = [
      { id: randomUUID(), place: 'rung', coats: 2, spot: '', view: 'shade', verdict: 'match', patch: null },
      { id: randomUUID(), place: 'job', coats: 2, spot: 'nose', view: 'lamp', verdict: 'lighter', patch: null },
      { id: randomUUID(), place: 'job', coats: 2, spot: 'nose', view: 'lamp', verdict: null, patch: 1.5 },
    ];
    for (const v of looks)
      await old.db.execute(
        sql`insert into verdicts (id, job_id, place, coats, spot, view, verdict, patch, taken_at) values (${v.id}, ${plain}, ${v.place}, ${v.coats}, ${v.spot}, ${v.view}, ${v.verdict}, ${v.patch}, '2026-11-20T09:00:00Z')`,
      );
    await old.close();
    const now = await openEmbedded(MIGRATIONS, folder);
    const { jobs: repo } = createRepos(now.db, unharmed);
    const first = await repo.read(plain);
    expect(first.job.areas!.map((a) => [a.id, a.name, a.objectId, a.on, a.mounting, a.first])).toEqual([
      ['tub', 'Piece tub', 'object-1', null, 'stand', false],
      ['edge', 'Piece edge', 'object-1', null, 'stand', true],
    ]);
    expect(first.events.slice(0, 4).map((e) => [e.id, e.at, e.kind, e.text])).toEqual(
      taps.slice(0, 4).map((t, i) => [t.id, at + i, t.kind, t.text]),
    );
    expect(first.events[1]!.cells).toEqual([{ coatId: 'sealer/wet/1', areaId: 'edge' }]);
    // What was not asked then: everything was cleared, nobody said how much peel, and no tap was a mend.
    expect(first.job.areas!.map((a) => a.clear)).toEqual(['cleared', 'cleared']);
    expect(first.job.texture).toBeNull();
    expect(first.events.every((e) => e.mend === null)).toBe(true);
    expect(first.verdicts.map((v) => v.id)).toEqual([looks[0]!.id]);
    expect(first.events.slice(4)).toMatchObject([
      { id: looks[1]!.id, kind: 'look', coats: 2, look: { spot: 'nose', view: 'lamp', verdict: 'lighter' } },
      { id: looks[2]!.id, kind: 'look', coats: 2, look: { spot: 'nose', verdict: null, patch: 1.5 } },
    ]);
    const second = await repo.read(two);
    expect(second.job.areas!.map((a) => [a.id, a.finishId, a.on])).toEqual([
      ['tub', null, null],
      ['back', null, null],
      ['tub/1', 'lines', 'tub'],
      ['back/1', 'lines', 'back'],
    ]);
    expect(second.events.map((e) => e.cells)).toEqual([
      [{ coatId: 'g/wet/1', areaId: 'tub' }],
      [{ coatId: 'g2/wet/1', areaId: 'tub/1' }],
    ]);
    // Every tap counts: the plan of today knows each of them.
    const work = (d: JobDetail) =>
      workOfJob({ ...d, library: libraryOf([]), products: STARTING_PRODUCTS, guns: STARTING_GUNS })!.plan;
    for (const [d, done] of [
      [first, 1],
      [second, 2],
    ] as const)
      expect(jobState(work(d), d.events)).toMatchObject({ done, strays: [] });
    expect((await repo.read(bare)).job.areas).toBeNull();
    await now.close();
    rmSync(folder, { recursive: true });
  }, 90_000);

  it('moves over: ticked control coats are counted, greys get their new names, mixes say that their parts are not known', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-old-'));
    const old = await openEmbedded(upTo(6, folder), folder);
    const [plain, laid] = [randomUUID(), randomUUID()];
    const layers = [
      { id: 'a', kind: 'ground', materialId: 'value-6', coats: 2, style: 'wet', strength: 1, filmUm: 12 },
      { id: 'b', kind: 'effect', materialId: 'cinder-candy', coats: 3, style: 'wet', strength: 1, filmUm: 10 },
      { id: 'c', kind: 'effect', materialId: 'cinder-candy', coats: 2, style: 'control', strength: 1, filmUm: 10 },
    ];
    const insert = (id: string, choice: object, stacks: object | null) =>
      old.db.execute(
        sql`insert into jobs (id, piece, matching, family, system_id, choice, stacks) values (${id}, 'Old tub', 'tub 2', 'candy', 'cinder-candy', ${JSON.stringify(choice)}::jsonb, ${stacks === null ? null : JSON.stringify(stacks)}::jsonb)`,
      );
    const choice = { groundId: 'value-3', coats: 2.5, strength: 1.2, style: 'light', controlCoat: true };
    await insert(plain, choice, null);
    await insert(laid, { ...choice, groundId: 'value-6', controlCoat: false }, [
      { id: 'main', name: 'whole piece', layers },
    ]);
    // A shop's own mixes: with flake and dye, and with flake alone.
    const [both, alone] = [randomUUID(), randomUUID()];
    const mix = { kind: 'system', carrierId: 'binder', pigmentId: 'blue-pearl-fine', cover: 0.28, filmUm: 9 };
    for (const [id, dye] of [
      [both, { dyeId: 'lagoon-blue', depth: 0.2 }],
      [alone, { dyeId: null, depth: 0 }],
    ] as const) {
      const material = { ...mix, ...dye, id, name: `Own ${id}`, family: 'pearl', flashMinutes: 10, pricePerLitre: 80 };
      await old.db.execute(
        sql`insert into materials (id, kind, name, material) values (${id}, 'system', ${material.name}, ${JSON.stringify(material)}::jsonb)`,
      );
    }
    const [read, make] = [randomUUID(), randomUUID()];
    const ground = { kind: 'ground', id: read, name: 'Fog', mark: 'fog', lab: [78, -3, 4], pricePerLitre: 30 };
    const spacer = { kind: 'pigment', structure: 'colour-shift', filmNm: 400, sizeUm: 20, tilt: 5, edge: 0.1 };
    for (const material of [ground, { ...spacer, id: make, name: 'Our shift' }])
      await old.db.execute(
        sql`insert into materials (id, kind, name, material) values (${material.id}, ${material.kind}, ${material.name}, ${JSON.stringify(material)}::jsonb)`,
      );
    await old.close();
    const now = await openEmbedded(MIGRATIONS, folder);
    const mixes = new Map(
      (await createRepos(now.db, unharmed).materials.list()).map((m) => [m.material.id, m.material]),
    );
    const flake = { kind: 'flake', id: 'blue-pearl-fine', parts: null, strength: 0.28 };
    for (const [id, colours] of [
      [both, [flake, { kind: 'dye', id: 'lagoon-blue', parts: null, strength: 0.2 }]],
      [alone, [flake]],
    ] as const)
      expect(mixes.get(id)).toEqual({
        ...{ kind: 'system', carrierId: 'binder', filmUm: 9 },
        ...{ id, name: `Own ${id}`, family: 'pearl', flashMinutes: 10, pricePerLitre: 80 },
        ...{ carrierParts: null, strengthFrom: 'typed', drawdown: null, colours },
      });
    expect(mixes.get(read)).toMatchObject({ name: 'Fog', hidesIn: 3, solids: [], pigmentId: null });
    expect(mixes.get(make)).toMatchObject({ structure: 'metal-spacer', filmNm: 400 });
    const { jobs: repo } = createRepos(now.db);
    expect((await repo.read(plain)).job).toMatchObject({
      piece: 'Old tub',
      pick: { groundId: 'grey-31', coats: 2.5, strength: 1.2, style: 'light', controlCoats: 1 },
      stacks: null,
      removedAt: null,
    });
    const { job } = await repo.read(laid);
    expect(job.pick).toMatchObject({ groundId: 'grey-63', controlCoats: 0 });
    expect(job.stacks?.[0]?.layers).toEqual(layers.map((l) => (l.id === 'a' ? { ...l, materialId: 'grey-63' } : l)));
    await now.close();
    rmSync(folder, { recursive: true });
  }, 90_000);

  it('keeps the code of a finish as the first of several, and knows the guns of cards by what was typed', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-codes-'));
    const old = await openEmbedded(upTo(15, folder), folder);
    const [coded, bare] = [randomUUID(), randomUUID()];
    for (const [id, code] of [
      [coded, ' C-12 '],
      [bare, ''],
    ] as const)
      await old.db.execute(
        sql`insert into finishes (id, name, code, matching, family, mix_id) values (${id}, 'Old', ${code}, '', 'candy', 'cinder-candy')`,
      );
    const guns = STARTING_GUNS.slice(0, 2).map((g) => ({ ...g, id: randomUUID() }));
    for (const g of guns)
      await old.db.execute(
        sql`insert into guns (id, name, gun) values (${g.id}, ${g.name}, ${JSON.stringify(g)}::jsonb)`,
      );
    const typed = [
      [coded, guns[0]!.name.toUpperCase(), guns[0]!.id],
      [bare, 'Gun 2', guns[1]!.id],
      [bare, 'a borrowed one', null],
    ] as const;
    for (const [k, [finishId, gun]] of typed.entries())
      await old.db.execute(
        sql`insert into cards (id, finish_id, rungs, gun, pressure_bar, on_stand, retired_at) values (${randomUUID()}, ${finishId}, '[1, 2]'::jsonb, ${gun}, 1.4, true, ${k === 2 ? '2026-11-20T09:00:00Z' : null}::timestamptz)`,
      );
    await old.close();
    const now = await openEmbedded(MIGRATIONS, folder);
    const { finishes, cards } = createRepos(now.db, unharmed);
    const kept = await Promise.all([coded, bare].map(async (id) => (await finishes.read(id)).finish.codes));
    expect(kept).toEqual([['C-12'], []]);
    for (const [finishId, gun, gunId] of typed) {
      const all = await cards.everyOf(finishId);
      expect(all.find((c) => c.card.gun === gun)!.card.gunId).toBe(gunId);
    }
    await now.close();
    rmSync(folder, { recursive: true, force: true });
  });
});
