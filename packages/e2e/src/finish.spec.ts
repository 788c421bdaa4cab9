import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { seriousFaults } from './axe';
import { demoJob, journeyServer } from './journeyServer';

const server = journeyServer(4741);

const answer = (page: Page) => page.getByTestId('answer');
const open = (page: Page, key: number, place: string) => page.goto(`${server.address}/jobs/${demoJob(key)}/${place}`);

/** A file the page hands out when the button is pressed. */
async function fileFrom(page: Page, button: string): Promise<{ name: string; content: Buffer }> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: button, exact: true }).first().click();
  const file = await waiting;
  return { name: file.suggestedFilename(), content: readFileSync(await file.path()) };
}

const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47]);

test('the pearl job: three picks, another light, files, recipes, a body under the lamp, and its layers', async ({
  page,
}) => {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));

  await test.step('the map: picks take the probe along, the light changes, pictures and figures can be saved', async () => {
    await open(page, 3, 'map');
    await expect(answer(page)).toContainText('Aqua pastel');
    const picks = page.getByRole('group', { name: 'Picks' });
    for (const name of ['Best match', 'Most forgiving', 'Cheapest']) await expect(picks.getByText(name)).toBeVisible();
    // What stays far off the target is folded away, and said.
    await expect(page.getByRole('gridcell', { name: /^Deep black/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'Show them' }).click();
    await page.getByRole('gridcell', { name: /^Deep black, 1 coats/ }).click();
    await expect(page.getByTestId('probe')).toContainText('deep black');
    await picks.getByRole('button', { name: /Best match/ }).click();
    await expect(page.getByTestId('probe')).toContainText('aqua pastel');
    await expect(page.getByText('under a bulb, worst')).toBeVisible();
    await page.getByRole('grid').locator('[tabindex="0"]').focus();
    const before = await page.getByRole('gridcell', { name: /^Aqua pastel, 2 coats/ }).getAttribute('aria-label');
    await page.keyboard.press('l');
    await expect(page.getByRole('button', { name: 'bulb' })).toHaveAttribute('aria-pressed', 'true');
    await expect(page.getByRole('gridcell', { name: /^Aqua pastel, 2 coats/ })).not.toHaveAttribute(
      'aria-label',
      before!,
    );
    await page.getByRole('button', { name: 'daylight' }).click();
    const csv = await fileFrom(page, 'CSV');
    expect(csv.name).toBe('gondola-doors-11-and-12-match-map.csv');
    const lines = csv.content.toString('utf8').trim().split('\n');
    expect(lines).toHaveLength(1 + 16 * 12);
    expect(lines[0]).toContain('dE00 110');
    expect((await fileFrom(page, 'Picture')).content.subarray(0, 4)).toEqual(PNG);
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByRole('button', { name: 'Put aside to compare' }).click();
    await page.getByRole('gridcell', { name: /^Aqua pastel, 4 coats/ }).click();
    await page.getByRole('button', { name: 'Put aside to compare' }).click();
  });

  await test.step('recipes: over 5,000 looked at, the best put on the map', async () => {
    await open(page, 3, 'recipes');
    await expect(page.getByText(/5,408 recipes .* looked at in/)).toBeVisible();
    const rows = page.getByRole('table', { name: 'Recipes no other beats' }).getByRole('row');
    expect(await rows.count()).toBeGreaterThan(2);
    expect(await seriousFaults(page)).toEqual([]);
    await page
      .getByRole('link', { name: /^Put on the map/ })
      .first()
      .click();
    await expect(page).toHaveURL(/strength=/);
    await expect(page.getByTestId('probe')).toContainText('aqua pastel');
    await page.reload();
    await expect(page.getByRole('grid')).toBeVisible();
  });

  await test.step('a nudge from words: half first', async () => {
    await open(page, 5, 'recipes');
    const form = page.getByRole('form', { name: 'How the card is off' });
    await form.getByLabel('How much').selectOption('clearly');
    await form.getByLabel('Seen where').selectOption('all over');
    await form.getByRole('button', { name: 'Say it' }).click();
    await expect(page.getByText('The card is clearly redder, all over')).toBeVisible();
    await expect(page.getByTestId('nudge')).toContainText(/Add \d.* g .* of .* then look/);
    await page.getByRole('button', { name: 'rung 2' }).click();
    await expect(page.getByTestId('nudge')).toContainText(/Add|No toner helps/);
  });

  await test.step('the sample: a body under a lamp, the compared side by side', async () => {
    await open(page, 3, 'sample');
    await expect(page.locator('[data-drawn=webgl] canvas')).toBeVisible({ timeout: 90_000 });
    await page.getByRole('button', { name: 'Tank' }).click();
    await page.getByRole('slider', { name: 'Lamp, left to right' }).focus();
    for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowLeft');
    await expect(page.getByRole('list', { name: 'Candidates' }).getByRole('listitem')).toHaveCount(2);
    for (const button of ['Save the picture', 'Save the comparison', 'Picture']) {
      expect((await fileFrom(page, button)).content.subarray(0, 4)).toEqual(PNG);
    }
    await expect(answer(page)).toContainText(/halves (differ|should)|half and right half/);
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByRole('button', { name: 'Leave it out' }).first().click();
    await expect(page.getByRole('list', { name: 'Candidates' }).getByRole('listitem')).toHaveCount(1);
  });

  await test.step('layers: added, split, moved by key, undone, over the limit, kept', async () => {
    await open(page, 4, 'layers');
    const rows = page.getByRole('list', { name: 'Layers, first sprayed on top' }).getByRole('listitem');
    await expect(rows).toHaveCount(4);
    expect((await fileFrom(page, 'Picture')).content.subarray(0, 4)).toEqual(PNG);
    await page.getByRole('button', { name: '+ primer' }).click();
    await expect(rows.first()).toContainText('primer');
    await page.getByRole('button', { name: 'Split in two: effect' }).click();
    await expect(rows).toHaveCount(6);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(rows).toHaveCount(5);
    await page.getByRole('button', { name: 'Move primer' }).focus();
    await page.keyboard.press('Space');
    await page.waitForTimeout(250);
    await page.keyboard.press('ArrowDown');
    await page.waitForTimeout(250);
    await page.keyboard.press('Space');
    await expect(rows.nth(1)).toContainText('primer');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(rows.first()).toContainText('primer');
    const film = page.getByLabel('Film of a full coat of primer, µm');
    await film.fill('nine');
    await expect(page.getByText('A film between 1 µm and 500 µm.')).toBeVisible();
    await expect(film).toHaveValue('nine');
    await film.fill('220');
    await expect(answer(page)).toContainText('over your limit');
    expect(await seriousFaults(page)).toEqual([]);
    await page.getByLabel('Build not to exceed, µm').fill('12');
    await page.getByRole('button', { name: 'Keep these layers' }).click();
    await expect(page.getByText('leaves no room for a finish')).toBeVisible();
    await page.getByLabel('Build not to exceed, µm').fill('280');
    await page.getByRole('button', { name: 'Add a tone' }).click();
    await page.getByRole('button', { name: 'Half a coat less: effect' }).click();
    await page.getByRole('button', { name: 'Keep these layers' }).click();
    await expect(page.getByRole('button', { name: 'These layers are kept' })).toBeVisible();
    await page.reload();
    await expect(page.getByRole('button', { name: 'second tone' })).toBeVisible();
    // The new tone is laid nowhere until an area gets it: the header shows what is laid.
    await expect(page.getByRole('group', { name: /^Film section: primer, 1 × 220/ })).toHaveCount(2);
    await page.getByRole('button', { name: 'second tone' }).click();
    await expect(page.getByText('No area gets the second tone yet')).toBeVisible();
    await expect(page.getByRole('link', { name: 'Give it one under Pieces' })).toBeVisible();
    await open(page, 4, 'map');
    await expect(page.getByText(/build, \d+ µm over limit/)).toBeVisible();
  });
  expect(errors).toEqual([]);
});

test('the candy job on a tablet, by keyboard alone', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  await open(page, 4, 'map');
  await expect(answer(page)).toContainText('Fine silver');
  const press = async (name: RegExp | string, key = 'Enter') => {
    // Tab until the control is reached, as a hand without a mouse does.
    for (let i = 0; i < 80; i++) {
      await page.keyboard.press('Tab');
      const at = await page.evaluate(
        () => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '',
      );
      if (typeof name === 'string' ? at === name : name.test(at)) {
        if (key) await page.keyboard.press(key);
        return;
      }
    }
    throw new Error(`Never reached ${String(name)}`);
  };
  await press(/coats, dE/, '');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  expect(await seriousFaults(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByTestId('probe')).toContainText('2½ coats over fine silver');
  await press('Pick this, plan the card');
  await expect(page).toHaveURL(/\/card$/);
  await expect(page.getByRole('group', { name: /Cinder candy, 2½ × 10 µm/ }).first()).toBeVisible();
});

test('no target, one angle, out of reach, and a browser without WebGL', async ({ page }) => {
  await test.step('no target', async () => {
    for (const place of ['map', 'recipes']) {
      await open(page, 1, place);
      await expect(page.getByText('Read the target first.')).toBeVisible();
    }
    await open(page, 1, 'sample');
    await expect(answer(page)).toContainText('What you would get');
  });
  await test.step('one angle, and a colour nothing here has', async () => {
    await open(page, 1, 'target');
    await page.getByLabel('L* at row 3', { exact: true }).fill('38');
    await page.getByLabel('a* at row 3', { exact: true }).fill('-58');
    await page.getByLabel('b* at row 3', { exact: true }).fill('10');
    await page.getByRole('button', { name: 'Keep this target' }).click();
    await page.getByRole('link', { name: 'Find the ground and coats' }).click();
    await expect(answer(page)).toContainText('No ground here reaches it. Closest is');
    await expect(
      page.getByText(/nothing here is as it should be: the target is .*(greener|weaker|stronger)/),
    ).toBeVisible();
    await expect(page.getByText('No half step passes on any ground.')).toBeVisible();
    await open(page, 1, 'recipes');
    await expect(answer(page)).toContainText('No recipe reaches it');
  });
  await test.step('without WebGL the body is drawn on a plain canvas', async () => {
    await page.addInitScript(() => {
      // Called with its own canvas below.
      // eslint-disable-next-line @typescript-eslint/unbound-method
      const get = HTMLCanvasElement.prototype.getContext;
      HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
        return kind.startsWith('webgl') ? null : (get as (...a: unknown[]) => unknown).call(this, kind, ...rest);
      } as typeof get;
    });
    await open(page, 3, 'sample');
    await expect(page.locator('[data-drawn=canvas] canvas')).toBeVisible({ timeout: 20_000 });
    await expect(page.getByText('Drawn without WebGL.')).toBeVisible();
  });
});
