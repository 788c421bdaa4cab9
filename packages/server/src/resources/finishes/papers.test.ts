import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { labelPath, logApi, passportPath, pathOf, jobSheetPath } from '@steady-gleam/contracts';
import { eventOf } from '@steady-gleam/core/jobs';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { extractText, getDocumentProxy } from 'unpdf';
import { qrOf } from '../../testdata/qrOfPdf';
import { fillWithAFinish, openShop, pick, tools } from '../../testdata/bankShop';

describe('papers', () => {
  let here: Awaited<ReturnType<typeof openShop>>;
  let made: Awaited<ReturnType<typeof fillWithAFinish>>;
  beforeAll(async () => {
    here = await openShop();
    made = await fillWithAFinish(here.app);
    // Printed at the server itself, papers lead to the address other devices open.
    here.app.locals['address'] = 'http://shop.local:4680';
  }, 90_000);
  afterAll(() => here.db.close());

  const textOf = async (bytes: Buffer) =>
    (await extractText(await getDocumentProxy(new Uint8Array(bytes)), { mergePages: true })).text.replace(/\s+/g, ' ');
  const pdf = async (path: string): Promise<Buffer> =>
    (await request(here.app).get(path).buffer(true).expect(200)).body as Buffer;

  it('has a passport: names, mix, set-up, rungs over the target, what the eye said, and its address as QR', async () => {
    const bytes = await pdf(passportPath(made.finishId, 'metric', 'UTC'));
    const text = await textOf(bytes);
    for (const said of [
      'the old front',
      'Harbour mix',
      'Harbour grey',
      'Gun 1',
      '1.4 bar',
      '2 coats matched in the sun’s flop',
      'Gun 7',
    ])
      expect(text).toContain(said);
    expect(qrOf(bytes)).toBe(`http://shop.local:4680/bank/${made.finishId}`);
    expect(await textOf(await pdf(passportPath(made.finishId, 'us', 'UTC')))).toContain('20 psi');
    // The label for the back of the card holds the mix and the answer too, on its one small page.
    const jobId = (await tools(here.app).read(made.finishId)).finish.jobs[0]!.id;
    for (const size of ['card', 'a6'] as const) {
      const label = await pdf(labelPath(jobId, size, 'metric', 'UTC'));
      expect((await getDocumentProxy(new Uint8Array(label))).numPages).toBe(1);
      expect(await textOf(label)).toMatch(/Mix.*harbour pearl.*Answer/);
      expect(qrOf(label)).toBe(`http://shop.local:4680/jobs/${jobId}/card`);
    }
  });

  it('of a job: the sheet as done tells coats with their times, lots and notes, and nothing that was only planned', async () => {
    const t = tools(here.app);
    const job = await t.make({ piece: 'Step board', matching: 'board 1' });
    await t.change(job.id, { version: 1, pick }).expect(200);
    const at = Date.parse('2026-11-20T13:05:00Z');
    const events = [
      eventOf({ id: randomUUID(), at: at - 1, kind: 'start' }),
      eventOf({
        ...{ id: randomUUID(), at, kind: 'sprayed' },
        cells: [{ coatId: 'sealer/wet/1', areaId: 'piece-1', layerId: 'sealer', name: 'sealer', coats: 1, filmUm: 25 }],
      }),
      eventOf({ id: randomUUID(), at: at + 60_000, kind: 'note', text: 'a nib at the left edge' }),
    ];
    await request(here.app)
      .post(pathOf(logApi.addEvents.path, { id: job.id }))
      .send({ events })
      .expect(201);
    const text = await textOf(await pdf(jobSheetPath(job.id, 'metric', 'Pacific/Auckland', 'done')));
    expect(text).toContain('Step board: as done');
    expect(text).toContain('a nib at the left edge');
    // Their own day and clock: thirteen hours on.
    expect(text).toContain('2026-11-21 02:05');
    expect(text).not.toContain('Flash until evenly dull');
    expect(await textOf(await pdf(jobSheetPath(job.id, 'metric', 'UTC')))).toContain('Flash until evenly dull');
    const { version } = (await t.job(job.id)).job;
    await t.change(job.id, { version, status: 'finished' }).expect(200);
    expect(await textOf(await pdf(jobSheetPath(job.id, 'metric', 'UTC')))).toContain('as done');
    expect(await textOf(await pdf(jobSheetPath(job.id, 'metric', 'UTC', 'plan')))).toContain('Flash until evenly dull');
  });
});
