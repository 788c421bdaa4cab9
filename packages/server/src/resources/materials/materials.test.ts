import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { jobsApi, materialsApi, pathOf } from '@steady-gleam/contracts';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { newJob, openTestShop } from '../../testdata/testShop';

let shop: Awaited<ReturnType<typeof openTestShop>>;
beforeAll(async () => {
  shop = await openTestShop([], true);
}, 60_000);
afterAll(() => shop.open.close());

describe('materials', () => {
  const own = (over: object = {}) => ({
    kind: 'ground',
    id: randomUUID(),
    name: 'Fog pastel',
    mark: 'fog',
    lab: [78, -3, 4],
    pricePerLitre: 30,
    ...over,
  });
  const path = (id: string) => pathOf(materialsApi.put.path, { id });

  it('keeps, changes and removes one; bounds are named at the field', async () => {
    const ground = own();
    await request(shop.app).put(path(ground.id)).send({ version: 0, material: ground }).expect(200);
    await request(shop.app)
      .put(path(ground.id))
      .send({ version: 1, material: { ...ground, name: 'Mist pastel' } })
      .expect(200);
    expect(
      (await request(shop.app).put(path(ground.id)).send({ version: 1, material: ground }).expect(409)).body.code,
    ).toBe('stale');
    const listed = (await request(shop.app).get(materialsApi.list.path)).body as { material: { name: string } }[];
    expect(listed.map((m) => m.material.name)).toContain('Mist pastel');
    const thin = {
      kind: 'pigment',
      id: randomUUID(),
      name: 'x',
      structure: 'titania-mica',
      filmNm: 900,
      sizeUm: 20,
      tilt: 40,
      edge: 0.1,
    };
    const bad = await request(shop.app).put(path(thin.id)).send({ version: 0, material: thin }).expect(400);
    expect(bad.body.fields).toMatchObject({
      'material.filmNm': expect.stringContaining('at most 260 nm'),
      'material.tilt': expect.stringContaining('above 20'),
    });
    await request(shop.app).delete(path(ground.id)).send({ version: 2 }).expect(200);
    await request(shop.app).delete(path(ground.id)).send({ version: 2 }).expect(404);
  });

  it('is refused to a job when it is not there, and can not be removed while used, which is said', async () => {
    const mix = {
      kind: 'system',
      id: randomUUID(),
      name: 'Harbour candy',
      family: 'candy',
      carrierId: 'intercoat',
      colours: [{ kind: 'dye', id: 'reed-green', parts: null, strength: 1 }],
      carrierParts: null,
      strengthFrom: 'typed',
      drawdown: null,
      filmUm: 10,
      flashMinutes: 12,
      pricePerLitre: 70,
    };
    const job = { ...newJob(), mixId: mix.id };
    expect((await request(shop.app).post(jobsApi.create.path).send(job).expect(400)).body.fields.mixId).toContain(
      'not here any more',
    );
    expect(
      (
        await request(shop.app)
          .put(path(mix.id))
          .send({
            version: 0,
            material: { ...mix, colours: [{ kind: 'dye', id: randomUUID(), parts: 1, strength: 1 }] },
          })
          .expect(400)
      ).body.fields['colours[0].id'],
    ).toContain('not here');
    await request(shop.app).put(path(mix.id)).send({ version: 0, material: mix }).expect(200);
    await request(shop.app).post(jobsApi.create.path).send(job).expect(201);
    const kept = await request(shop.app).delete(path(mix.id)).send({ version: 1 }).expect(409);
    expect(kept.body).toMatchObject({ code: 'inUse', message: expect.stringContaining('used by Waltzer tub 9') });
  });
});
