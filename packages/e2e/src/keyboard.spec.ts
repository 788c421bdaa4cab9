import { expect, test, type Page } from '@playwright/test';
import { journeyServer } from './journeyServer';

const server = journeyServer(4890);

const answer = (page: Page) => page.getByTestId('answer');
/** What has the focus, by the name a screen reader says. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement;
    if (!(at instanceof HTMLElement) || at === document.body) return '';
    const label =
      at instanceof HTMLInputElement || at instanceof HTMLSelectElement ? at.labels?.[0]?.textContent : null;
    const by = at.getAttribute('aria-labelledby');
    const named = by ? document.getElementById(by)?.textContent : null;
    return (at.getAttribute('aria-label') ?? named ?? label ?? at.textContent ?? '').trim();
  });

/** Goes on by Tab until a control has the focus, and sees to it that one can see where one is. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  const passed: string[] = [];
  for (let i = 0; i < 120; i++) {
    const here = await focused(page);
    if (name.test(here)) {
      const ring = await page.evaluate(() => {
        const at = document.activeElement!;
        // Of a slider the thumb has it, which no script can look at.
        if (at instanceof HTMLInputElement && at.type === 'range') return 'thumb';
        const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(at);
        return outlineStyle !== 'none' && parseFloat(outlineWidth) > 0 ? 'outline' : boxShadow;
      });
      expect(ring, `the ring about “${here}”`).not.toBe('none');
      return;
    }
    passed.push(here);
    await page.keyboard.press('Tab');
  }
  throw new Error(`By Tab one never comes to ${String(name)}: ${passed.join(' | ')}`);
}

async function press(page: Page, name: RegExp, key: 'Enter' | 'Space' = 'Enter'): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press(key);
}

async function write(page: Page, name: RegExp, text: string): Promise<void> {
  await tabTo(page, name);
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(text);
}

test('from the first page to a planned card, by keyboard alone', async ({ page }) => {
  await page.goto(server.address);
  await expect(answer(page)).toContainText('is next');
  await press(page, /^Match something/);
  await write(page, /^Piece/, 'Organ front 3');
  await write(page, /^Has to match/, 'the old front');
  await press(page, /^Start this job/);
  await expect(page).toHaveURL(/\/target$/);

  // One spot at five angles, row by row.
  const labs = [
    [72, -20, -34],
    [66, -19, -31],
    [58, -17, -28],
    [50, -15, -25],
    [45, -13, -22],
  ];
  for (const [row, lab] of labs.entries())
    for (const [k, axis] of ['L\\*', 'a\\*', 'b\\*'].entries())
      await write(page, new RegExp(`^${axis} at row ${row + 1}$`), String(lab[k]));
  await press(page, /^Keep this target/);
  await expect(answer(page)).toHaveText('Read at 5 angles, one spot.');

  await press(page, /^Find the ground and coats/);
  await expect(page).toHaveURL(/\/map/);
  await expect(answer(page)).not.toHaveText(/…$/);
  // The map is walked with the arrows; the place shows in the panel beside it.
  await tabTo(page, /coats, dE/);
  const before = (await page.getByTestId('probe').textContent())!;
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByTestId('probe')).not.toHaveText(before);
  await tabTo(page, /^Strength/);
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('#strength-label')).toHaveText('Strength 1.05×');
  await press(page, /^Pick this, plan the card/);
  await expect(page).toHaveURL(/\/card$/);
  await press(page, /^Keep this plan/);
  await expect(page.getByText('Say which gun')).toBeVisible();
  await tabTo(page, /^Gun$/);
  await page.keyboard.press('ArrowDown');
  await press(page, /^Keep this plan/);
  await expect(page.getByRole('button', { name: 'Change the plan' })).toBeVisible();
});
