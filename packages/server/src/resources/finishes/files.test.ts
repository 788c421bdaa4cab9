import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import {
  finishesApi,
  finishFilePath,
  finishFilesApi,
  finishZipPath,
  lookedSchema,
  materialsApi,
  openFilePath,
  pathOf,
  type FileAnswers,
} from '@steady-gleam/contracts';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { unzipSync, strFromU8, zipSync, strToU8 } from 'fflate';
import request from 'supertest';
import { without } from '../../db/rows';
import { FINISH_FILE_SCHEMA } from '../../finishFile/schema';
import { asked, fillWithAFinish, openShop, tools, type App } from '../../testdata/bankShop';

describe('a finish as a file', () => {
  let made: Awaited<ReturnType<typeof fillWithAFinish>>;
  let [here, there, third]: Awaited<ReturnType<typeof openShop>>[] = [];
  const save = async (app: App, id = made.finishId) => (await request(app).get(finishFilePath(id)).expect(200)).text;
  const send = (app: App, path: string, bytes: Buffer) =>
    request(app).post(path).set('Content-Type', 'application/octet-stream').send(bytes);
  const look = async (app: App, text: string) =>
    lookedSchema.validateSync((await send(app, finishFilesApi.look.path, Buffer.from(text)).expect(200)).body);
  const open = (app: App, text: string, answers: Partial<FileAnswers> = {}) =>
    send(app, openFilePath({ materials: {}, guns: {}, here: {}, ...answers }), Buffer.from(text));
  /** A file without the moment it was saved. */
  const plain = (text: string) => ({ ...(JSON.parse(text) as object), savedAt: '' });

  beforeAll(async () => {
    [here, there, third] = [await openShop(), await openShop(), await openShop()];
    made = await fillWithAFinish(here.app);
  }, 90_000);
  afterAll(async () => {
    await here!.db.close();
    await there!.db.close();
    await third!.db.close();
  });

  it('is described by the schema that is shipped', () => {
    expect(JSON.parse(readFileSync(resolve('docs/finish-file.schema.json'), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(FINISH_FILE_SCHEMA)),
    );
  });

  it('asks another shop for what it lacks, stores nothing before, and comes out of it as it went in', async () => {
    const text = await save(here!.app);
    const looked = await look(there!.app, text);
    expect(looked.refused).toEqual([]);
    expect(looked.finishes).toMatchObject([{ id: made.finishId, here: false, cards: 2, rungs: 2, photos: 2 }]);
    expect(looked.finishes[0]!.asked.map((a) => [a.what, a.name, a.comes])).toEqual([
      ['system', 'Harbour mix', true],
      ['ground', 'Harbour grey', true],
      ['gun', 'Gun 7', true],
    ]);
    const unanswered = await open(there!.app, text, { materials: { [made.mixId]: 'take' } }).expect(400);
    expect(Object.keys(unanswered.body.fields).sort()).toEqual(
      [`guns.${made.gun.id}`, `materials.${made.groundId}`].sort(),
    );
    for (const message of Object.values(unanswered.body.fields)) expect(message).toMatch(/^(Gun 7|Harbour grey).*\.$/);
    const t = tools(there!.app);
    expect((await t.list()).total).toBe(0);
    expect((await request(there!.app).get(materialsApi.list.path).expect(200)).body).toEqual([]);
    const answers = { materials: { [made.mixId]: 'take', [made.groundId]: 'take' }, guns: { [made.gun.id]: 'take' } };
    const opened = await open(there!.app, text, answers).expect(201);
    expect(opened.body.finishes).toEqual([{ id: made.finishId, name: 'the old front' }]);
    expect(plain(await save(there!.app))).toEqual(plain(text));
    // What the mix is made of came with it.
    const own = (await request(there!.app).get(materialsApi.list.path).expect(200)).body as {
      material: { id: string };
    }[];
    expect(own.map((m) => m.material.id)).toContain(made.pigmentId);
    const near = await t.nearest(asked(60));
    expect(near.found[0]).toMatchObject({ finishId: made.finishId, coats: 1 });
    // Once more: it is there already, so that is asked; beside it it gets ids of its own.
    expect((await look(there!.app, text)).finishes[0]).toMatchObject({ here: true, asked: [] });
    expect((await open(there!.app, text).expect(400)).body.fields[`here.${made.finishId}`]).toMatch(/already/);
    expect((await open(there!.app, text, { here: { [made.finishId]: 'skip' } }).expect(201)).body.finishes).toEqual([]);
    const beside = (await open(there!.app, text, { here: { [made.finishId]: 'copy' } }).expect(201)).body.finishes[0]
      .id as string;
    expect(beside).not.toBe(made.finishId);
    const two = await t.read(beside);
    expect([two.cards.length, two.finish.origin]).toEqual([2, 'file']);
  });

  it('takes one of the shop’s own in the place of what it lacks', async () => {
    const text = await save(here!.app);
    const t = tools(third!.app);
    const wrong = {
      materials: { [made.mixId]: 'white', [made.groundId]: 'lagoon-pearl' },
      guns: { [made.gun.id]: 'none' },
    };
    expect(Object.keys((await open(third!.app, text, wrong).expect(400)).body.fields)).toHaveLength(2);
    expect((await t.list()).total).toBe(0);
    const answers = { ...wrong, materials: { [made.mixId]: 'cinder-candy', [made.groundId]: 'white' } };
    await open(third!.app, text, answers).expect(201);
    const { finish, cards } = await t.read(made.finishId);
    // It is of the family of what is laid now.
    expect(finish).toMatchObject({ mixId: 'cinder-candy', family: 'candy', pick: { groundId: 'white' } });
    expect(cards.map((c) => [c.card.gun, c.card.gunId])).toContainEqual(['Gun 7', null]);
    await request(third!.app)
      .delete(pathOf(finishesApi.remove.path, { id: made.finishId }))
      .send({ version: finish.version })
      .expect(200);
  });

  it('of strangers, damaged, older or newer is checked field by field', async () => {
    const text = await save(here!.app);
    const file = JSON.parse(text) as Record<string, unknown>;
    const change = (path: (string | number)[], value: unknown): string => {
      const copy = JSON.parse(text) as Record<string, unknown>;
      const at = path.slice(0, -1).reduce<Record<string, unknown>>((o, k) => o[k] as Record<string, unknown>, copy);
      if (value === undefined) delete at[path.at(-1)!];
      else at[path.at(-1)!] = value;
      return JSON.stringify(copy);
    };
    const materials = file['materials'] as { id: string }[];
    const csv = (file['target'] as { readings: { text: string } }).readings.text;
    const cases: [string, string, RegExp][] = [
      [text.slice(0, text.length / 2), '', /damaged/],
      ['[]', 'format', /no file of a finish/],
      [change(['format'], 'x'), 'format', /no file of a finish/],
      [change(['version'], 3), 'version', /newer program/],
      [change(['version'], 'x'), 'version', /version/],
      [change(['finish', 'name'], undefined), 'finish.name', /missing/],
      [change(['finish', 'family'], 'velvet'), 'finish.family', /one of/],
      [change(['finish', 'pick', 'coats'], 99), 'finish.pick.coats', /above 12/],
      [change(['surprise'], 1), 'surprise', /not known/],
      [change(['cards', 0, 'rungs', 0, 'takenAt'], 'yesterday'), 'cards[0].rungs[0].takenAt', /moment/],
      [change(['cards', 0, 'rungs', 0, 'kind'], 'target'), 'cards[0].rungs[0].kind', /rung/],
      [change(['target', 'readings', 'text'], csv.replace('15', 'x')), 'target.readings.text', /Line 2/],
      [change(['target', 'readings', 'text'], 'spot\n1'), 'target.readings.text', /columns/],
      [change(['cards', 0, 'card', 'pressureBar'], 99), 'cards[0].card.pressureBar', /bar/],
      [change(['photos', 0, 'data'], 'AAAA'), 'photos[0].data', /JPEG/],
      [change(['guns', 0, 'transfer'], 7), 'guns[0].transfer', /\./],
      [change(['guns', 1], { ...made.gun }), 'guns[1].id', /twice/],
      [
        change(
          ['materials'],
          materials.filter((m) => m.id !== made.pigmentId),
        ),
        'materials[0].colours[0].id',
        /does not come/,
      ],
      [change(['finish', 'mixId'], made.groundId), 'finish', /laid as a mix/],
      [change(['cards', 0, 'verdicts', 0, 'hue'], 'odd'), 'cards[0].verdicts[0].hue', /./],
    ];
    const t = tools(there!.app);
    const before = (await t.list()).total;
    for (const [bad, field, message] of cases) {
      const { refused, finishes } = await look(there!.app, bad);
      expect(finishes).toEqual([]);
      const [fault] = refused[0]!.faults;
      expect([fault!.field, message.test(fault!.message), fault!.message]).toEqual([field, true, fault!.message]);
      expect((await open(there!.app, bad).expect(400)).body.code).toBe('badRequest');
    }
    expect((await t.list()).total).toBe(before);
    // A ground named as a mix is none of the library's mixes: it is asked for, not believed.
    const swapped = JSON.parse(text.replaceAll(made.finishId, randomUUID())) as { finish: { mixId: string } };
    swapped.finish.mixId = 'white';
    expect((await look(there!.app, JSON.stringify(swapped))).finishes[0]!.asked).toMatchObject([
      { what: 'system', comes: false },
    ]);
    // Version 1 had one code and no photos.
    const finish = without(file['finish'] as Record<string, unknown>, 'codes');
    const cards = (file['cards'] as Record<string, unknown>[]).map((c) => without(c, 'photos'));
    const rest = without(file, 'photos');
    const old = JSON.stringify({ ...rest, version: 1, finish: { ...finish, id: randomUUID(), code: 'C-9' }, cards });
    const { finishes } = await look(there!.app, old);
    expect(finishes).toMatchObject([{ photos: 0, here: false }]);
    const opened = (await open(there!.app, old).expect(201)).body.finishes[0].id as string;
    const upgraded = await t.read(opened);
    expect(upgraded.finish.codes).toEqual(['C-9']);
    expect(upgraded.cards).toHaveLength(2);
  });

  it('of several is a zip, of which all is opened or nothing', async () => {
    const t = tools(here!.app);
    const other = await t.make({ piece: 'Second', matching: 'the old front' });
    const zip = await request(here!.app)
      .get(finishZipPath([made.finishId, other.finishId]))
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (d: Buffer) => parts.push(d));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    const files = unzipSync(new Uint8Array(zip.body as Buffer));
    expect(Object.keys(files).sort()).toEqual(['the-old-front-2.finish.json', 'the-old-front.finish.json']);
    const fifth = third!;
    const answers = { materials: { [made.mixId]: 'take', [made.groundId]: 'take' }, guns: { [made.gun.id]: 'take' } };
    const path = openFilePath({ here: {}, ...answers });
    const torn = zipSync({ ...files, 'c.finish.json': strToU8(strFromU8(Object.values(files)[0]!).slice(0, 400)) });
    const refused = await send(fifth.app, path, Buffer.from(torn)).expect(400);
    expect(Object.keys(refused.body.fields)[0]).toMatch(/^c\.finish\.json/);
    expect((await tools(fifth.app).list()).total).toBe(0);
    expect((await send(fifth.app, path, zip.body as Buffer).expect(201)).body.finishes).toHaveLength(2);
    for (const bytes of [
      Buffer.alloc(0),
      (zip.body as Buffer).subarray(0, 300),
      Buffer.from(zipSync({ 'a.txt': strToU8('x') })),
    ])
      expect((await send(fifth.app, finishFilesApi.look.path, bytes).expect(400)).body.fields.file).toMatch(/\.$/);
  });
});
