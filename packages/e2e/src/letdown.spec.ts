import { expect, test, type Page } from '@playwright/test';
import { demoReadings, type DemoTruth } from '@steady-gleam/core/demo';
import { averageReadings, toCgats, toColourXml, type Reading } from '@steady-gleam/core/formats';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { seriousFaults } from './axe';
import { journeyServer } from './journeyServer';
import { startCandyJob } from './jobSteps';

const shop = prepareLibrary();
const PAINTER: DemoTruth = {
  groundId: 'silver-fine',
  mixId: 'cinder-candy',
  strength: 1,
  style: 'wet',
  hand: { film: 1.2, flake: 1, spread: 1 },
  edgeScale: 1,
};
const MAKER: DemoTruth = { ...PAINTER, hand: { film: 1, flake: 1, spread: 1 } };

const server = journeyServer(4751);

const answer = (page: Page) => page.getByTestId('answer');
const text = (name: string, content: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(content) });

async function typeReadings(page: Page, readings: readonly Reading[]): Promise<void> {
  for (const [i, a] of averageReadings(readings).entries()) {
    for (const [k, axis] of ['L*', 'a*', 'b*'].entries())
      await page.getByLabel(`${axis} at row ${i + 1}`, { exact: true }).fill(a.lab[k]!.toFixed(2));
  }
}

test('without an instrument: by eye from a card to the job, and back after a reload', async ({ page }) => {
  await startCandyJob(page, server.address, 'Waltzer tub 8');
  await page.getByRole('link', { name: 'by eye' }).click();
  await expect(answer(page)).toContainText('plan a card and judge it by eye');
  await page.getByLabel('Gun', { exact: true }).selectOption('Another gun');
  await page.getByLabel('Gun and tip').fill('Gun 3, 1.3 tip');
  await page.getByLabel('Distance, cm').fill('abc');
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('Distance must be a number')).toBeVisible();
  await page.getByLabel('Distance, cm').fill('15');
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(answer(page)).toHaveText('Judge the rungs by eye.');

  // The painter's eye: 3.2 coats match.
  const seen = { 2: 'lighter', 3: 'match', 4: 'darker', 5: 'much darker' } as const;
  for (const [coats, verdict] of Object.entries(seen)) {
    await page.getByRole('button', { name: `Enter the rung with ${coats}` }).click();
    for (const view of ['sun face', 'sun flop', 'shade']) {
      await page
        .getByRole('group', { name: `Looks, ${view}` })
        .getByRole('button', { name: verdict, exact: true })
        .click();
    }
    if (verdict === 'match') {
      // Which way the hue is off stands beside the word, and is taken back the same way.
      const hue = page.getByRole('group', { name: 'Beside it, shade' }).getByRole('button', { name: 'redder' });
      await hue.click();
      await expect(hue).toHaveAttribute('aria-pressed', 'true');
      await hue.click();
      await expect(hue).toHaveAttribute('aria-pressed', 'false');
    }
    await page.getByRole('button', { name: 'Done with this rung' }).click();
  }
  await expect(answer(page)).toContainText(/By eye, (2\.[89]|3\.[0-3]) coats\. Spray (2|2½), then look\./);
  expect(await seriousFaults(page)).toEqual([]);

  await test.step('a verdict the wrong way round is said, not averaged', async () => {
    await page.getByRole('button', { name: /^Rung of 4 coats/ }).click();
    await page.getByRole('group', { name: 'Looks, shade' }).getByRole('button', { name: 'much lighter' }).click();
    await page.getByRole('button', { name: 'Done with this rung' }).click();
    await expect(page.getByText('In shade 4 coats looked lighter than')).toBeVisible();
    await expect(page.getByText('Your verdicts contradict each other')).toBeVisible();
    await page.getByRole('button', { name: /^Rung of 4 coats/ }).click();
    await page
      .getByRole('group', { name: 'Looks, shade' })
      .getByRole('button', { name: 'darker', exact: true })
      .click();
    await page.getByRole('button', { name: 'Done with this rung' }).click();
    await expect(page.getByText('contradict')).toHaveCount(0);
  });

  await page.getByRole('link', { name: 'Go to the job' }).click();
  await expect(answer(page)).toContainText(/Spray (2|2½), then look/);
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: /^(The next coat|One coat more) is on$/ }).click();
  await page.getByLabel('Where').fill('nose');
  await page
    .getByRole('group', { name: 'Looks, sun face' })
    .getByRole('button', { name: 'lighter', exact: true })
    .click();
  await expect(page.getByRole('list', { name: 'Spots' })).toContainText('nose');
  // One look of one eye from one place is too little to lay a whole coat on that can't be taken back.
  await expect(answer(page)).toContainText(
    /^(A quarter coat of the mix let down 1:1|A mist coat|Half a coat) more, then look\./,
  );
  for (const view of ['sun flop', 'shade'])
    await page
      .getByRole('group', { name: `Looks, ${view}` })
      .getByRole('button', { name: 'lighter', exact: true })
      .click();
  await expect(answer(page)).toContainText(/more, then look/);
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: /^(The next coat|One coat more) is on$/ }).click();
  await page.getByRole('group', { name: 'Looks, sun face' }).getByRole('button', { name: 'much darker' }).click();
  await expect(answer(page)).toContainText('Stop. It is over the window.');
  await expect(page.getByText('Nothing sprayed on').first()).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  await page.reload();
  await expect(answer(page)).toContainText('Stop. It is over the window.');
});

test('with an instrument: files of every kind, chips, a wet rung, a photo, a label, and a prior from the card before', async ({
  page,
}) => {
  const files = () => page.getByLabel('File of readings');
  await startCandyJob(page, server.address, 'Waltzer tub 9');
  const target = demoReadings(shop, MAKER, 3, ['left', 'right', 'top'], 21);

  await test.step('files that are wrong or leave something open', async () => {
    await files().setInputFiles(text('bomb.xml', '<?xml version="1.0"?>\n<!DOCTYPE a [<!ENTITY b "c">]>\n<CxF/>'));
    await expect(page.getByText('Line 2: This XML declares a document type')).toBeVisible();
    await files().setInputFiles(text('cut.txt', toCgats(target).replace('NUMBER_OF_SETS 15', 'NUMBER_OF_SETS 16')));
    await expect(page.getByText('NUMBER_OF_SETS says 16, but there are 15')).toBeVisible();
    await files().setInputFiles(
      text(
        'plain.txt',
        'CGATS.17\nBEGIN_DATA_FORMAT\nLAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n40 50 30\nEND_DATA\n',
      ),
    );
    await expect(page.getByText('does not say at which angle')).toBeVisible();
    await page.getByRole('button', { name: 'It is 45°' }).click();
    await expect(page.getByText('plain.txt: one spot')).toBeVisible();
    await page.getByRole('button', { name: 'Not these' }).click();
    await page.getByRole('button', { name: 'Paste a table' }).click();
    await page.getByLabel(/Rows from a spreadsheet/).fill('Ort\tWinkel\thell\trot\tgelb\nnose\t45\t40\t50\t30');
    await page.getByRole('button', { name: 'Read this table' }).click();
    await expect(page.getByText('Which column is which?')).toBeVisible();
    for (const [label, index] of [
      ['angle', '1'],
      ['L*', '2'],
      ['a*', '3'],
      ['b*', '4'],
    ] as const)
      await page
        .getByRole('group', { name: 'A question about this file' })
        .getByLabel(label, { exact: true })
        .selectOption(index);
    await page.getByRole('button', { name: 'Read it so' }).click();
    await expect(page.getByText('What you pasted: one spot')).toBeVisible();
  });

  await test.step('the target as XML; the same file twice is noticed; it goes out again', async () => {
    await files().setInputFiles(text('tub5.cxf', toColourXml(target)));
    await expect(page.getByText('3 spots, angles 15°')).toBeVisible();
    await page.getByRole('button', { name: 'Take these readings' }).click();
    await expect(answer(page)).toContainText('Read at 5 angles, 3 spots');
    await page.getByRole('button', { name: 'Read it again' }).click();
    await files().setInputFiles(text('tub5.cxf', toColourXml(target)));
    await expect(page.getByText('These very readings are stored already')).toBeVisible();
    await page.getByRole('button', { name: 'Leave it' }).click();
    const waiting = page.waitForEvent('download');
    await page.getByRole('button', { name: 'CGATS' }).click();
    expect((await waiting).suggestedFilename()).toBe('waltzer-tub-9-target.txt');
  });

  await test.step('variant chips are ranked', async () => {
    for (const [name, coats] of [
      ['standard', 2],
      ['darker', 3],
    ] as const) {
      await page.getByRole('button', { name: 'Add a chip' }).click();
      await page.getByLabel('Name of the chip').fill(name);
      await typeReadings(page, demoReadings(shop, MAKER, coats, ['1'], 90 + coats));
      await page.getByRole('button', { name: 'Keep this chip' }).click();
      await expect(page.getByRole('table', { name: 'Chips ranked' })).toContainText(name);
    }
    await expect(page.getByText('Nearest to the object is darker')).toBeVisible();
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('limits: what is none is said at its field; the shop’s own stand for every job of the family', async () => {
    const limit = page.getByLabel('Limit at 15 degrees');
    await limit.fill('0');
    await page.getByRole('button', { name: 'Keep for this job' }).click();
    await expect(page.getByText('A limit is at least 0.2 dE00.')).toBeVisible();
    await limit.fill('1.8');
    await page.getByRole('button', { name: 'Keep for every candy over metallic' }).click();
    await expect(page.getByRole('row', { name: /^15° .* 1\.8$/ })).toBeVisible();
    await page.getByRole('button', { name: 'Blended, 1.5×' }).click();
    await expect(page.getByRole('row', { name: /^15° .* 2\.7$/ })).toBeVisible();
    await page.getByRole('button', { name: 'Edge to edge' }).click();
    await expect(page.getByRole('row', { name: /^15° .* 1\.8$/ })).toBeVisible();
  });

  await test.step('map, plan by the model, rungs', async () => {
    await page.getByRole('link', { name: 'Find the ground and coats' }).click();
    await page.getByRole('button', { name: /Best match/ }).click();
    await page.getByRole('button', { name: 'Pick this, plan the card' }).click();
    await page.getByRole('button', { name: /Let the model choose: around/ }).click();
    await page.getByLabel('Gun', { exact: true }).selectOption('Gun 1, 1.3 tip');
    await page.getByRole('button', { name: 'Keep this plan' }).click();
    await page.getByRole('button', { name: 'Enter the rung with 1' }).click();
    await page.getByRole('button', { name: 'wet, uncleared' }).click();
    await typeReadings(page, demoReadings(shop, PAINTER, 1, ['1'], 31));
    await page.getByRole('button', { name: 'Keep this rung' }).click();
    await expect(page.getByText('was read wet, so it is kept but not used')).toBeVisible();
    for (const coats of [1, 2]) {
      await page.getByRole('button', { name: new RegExp(`^Rung of ${coats} coats`) }).click();
      await page
        .getByRole('group', { name: 'State of the rung' })
        .getByRole('button', { name: 'cleared', exact: true })
        .click();
      await typeReadings(page, demoReadings(shop, PAINTER, coats, ['1'], 40 + coats));
      // The wet reading of the first is put right by the cleared one.
      await page.getByRole('button', { name: coats === 1 ? 'Keep the correction' : 'Keep this rung' }).click();
      await expect(page.getByRole('button', { name: `Rung of ${coats} coats, read` })).toBeVisible();
    }
    await page.getByRole('button', { name: 'Bare ground: enter' }).click();
    await typeReadings(page, demoReadings(shop, PAINTER, 0, ['1'], 60));
    await page.getByRole('button', { name: 'Keep the bare ground' }).click();
    await expect(page.getByRole('button', { name: 'Bare ground, read' })).toBeVisible();
    await expect(answer(page)).toContainText(/Your card says 2\.[3-7]\. Spray/);
    await expect(page.getByText(/^You lay (1[0-9]|2\d) % more than a nominal coat\W.*so it/)).toBeVisible();
    await expect(page.getByText(/Safest: .* In one go:/)).toBeVisible();
    await page.getByRole('button', { name: 'The figures' }).click();
    await expect(page.getByText(/dye shift -?\d.*chi \d\.\d/)).toBeVisible();
  });

  await test.step('a photo of a rung: no picture is refused, a picture is kept and taken away', async () => {
    await page.getByRole('button', { name: 'Rung of 2 coats, read' }).click();
    const input = page.getByLabel('Photo of this rung');
    await input.setInputFiles({ name: 'x.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
    await expect(page.getByText('can’t be read')).toBeVisible();
    const png = await page.evaluate(() => {
      const canvas = document.createElement('canvas');
      canvas.width = 300;
      canvas.height = 200;
      canvas.getContext('2d')!.fillRect(0, 0, 300, 200);
      return canvas.toDataURL('image/png').split(',')[1]!;
    });
    await input.setInputFiles({ name: 'rung.png', mimeType: 'image/png', buffer: Buffer.from(png, 'base64') });
    await expect(page.getByAltText('Rung with 2 coats')).toBeVisible();
    await page.getByRole('button', { name: 'Take away' }).click();
    await expect(page.getByAltText('Rung with 2 coats')).toHaveCount(0);
    await page.getByRole('button', { name: 'Leave it' }).click();
  });

  await test.step('the label is a PDF in both sizes', async () => {
    for (const name of ['Label, card size', 'Label, A6']) {
      const href = await page.getByRole('link', { name }).getAttribute('href');
      const reply = await page.request.get(server.address + href!);
      expect(reply.headers()['content-type']).toBe('application/pdf');
      expect((await reply.body()).subarray(0, 5).toString()).toBe('%PDF-');
    }
  });

  await test.step('on the job: a reading at a spot', async () => {
    await page.goto(page.url().replace(/card$/, 'spray'));
    for (let i = 0; i < 2; i++)
      await page.getByRole('button', { name: /^(The next coat|One coat more) is on$/ }).click();
    await page.getByLabel('Where').fill('left side');
    await page.getByRole('button', { name: 'Readings' }).click();
    await page.getByRole('button', { name: 'dry, cleared patch' }).click();
    await typeReadings(page, demoReadings(shop, PAINTER, 2.1, ['1'], 77));
    await page.getByRole('button', { name: 'Keep this look' }).click();
    await expect(page.getByRole('list', { name: 'Spots' })).toContainText(
      /left side, (short|matches): like (1\.9|2\.[0-4]) coats/,
    );
    expect(await seriousFaults(page)).toEqual([]);
  });

  await test.step('the next job with this gun starts from this hand', async () => {
    await startCandyJob(page, server.address, 'Waltzer tub 10');
    await files().setInputFiles(text('tub5.txt', toCgats(target)));
    await page.getByRole('button', { name: 'Take these readings' }).click();
    await page.getByRole('link', { name: 'Find the ground and coats' }).click();
    await page.getByRole('button', { name: /Best match/ }).click();
    await page.getByRole('button', { name: 'Pick this, plan the card' }).click();
    await page.getByLabel('Gun', { exact: true }).selectOption('Gun 1, 1.3 tip');
    await page.getByRole('button', { name: 'Keep this plan' }).click();
    await expect(page.getByText('From your earlier cards')).toBeVisible();
    await expect(page.getByText(/1\.(0[3-9]|1\d), expected/)).toBeVisible();
  });
});
