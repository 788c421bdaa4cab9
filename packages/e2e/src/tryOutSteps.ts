import { expect, type Page } from '@playwright/test';
import { stepOn } from './boothSteps';

/** Reads with the simulated instrument: its white tile where it wants it, once more where it was moved; then keeps it. */
export async function readAndKeep(page: Page, keep: string | RegExp): Promise<void> {
  const instrument = page.getByRole('group', { name: 'The instrument' });
  const kept = page.getByRole('button', { name: keep });
  for (let i = 0; i < 5 && !(await kept.count()); i++) {
    await instrument.getByRole('button').first().click();
    await expect(instrument.getByText('Reading …')).toHaveCount(0, { timeout: 30_000 });
    await kept.or(instrument.getByRole('alert')).first().waitFor({ timeout: 30_000 });
  }
  await kept.click();
  await expect(kept).toHaveCount(0);
}

/** Does what the booth says is next, and at a look reads and does what is advised, until a heading is there. */
export async function runTo(page: Page, heading: string | RegExp, onLook: () => Promise<void> = async () => undefined) {
  for (let i = 0; i < 120; i++) {
    await page.getByTestId('check').or(page.getByTestId('coat')).waitFor();
    const h1 = page.getByRole('heading', { level: 1 });
    if (await page.getByRole('heading', { name: heading }).count()) return;
    const before = await h1.textContent();
    const footer = await page.getByTestId('after').textContent();
    if (/^Stop\. Look/.test(before ?? '')) {
      await page.getByRole('button', { name: 'Read it' }).click();
      await readAndKeep(page, 'Keep this look');
      await expect(page.getByText('target above, what was read here below')).toBeVisible();
      await onLook();
      const follows = page.getByRole('group', { name: 'What follows' });
      const advised = follows.locator('.MuiButton-contained');
      // Where what was seen is too unsure nothing is advised: then it is enough.
      await advised.waitFor({ timeout: 5_000 }).catch(() => undefined);
      const enough = follows.getByRole('button', { name: 'Enough: go on' });
      if (await advised.count()) await advised.click();
      else if (await enough.isEnabled()) await enough.click();
      else await follows.getByRole('button', { name: 'Looked: go on' }).click();
    } else await stepOn(page);
    await expect
      .poll(async () => `${await h1.textContent()}${await page.getByTestId('after').textContent()}`)
      .not.toBe(`${before}${footer}`);
  }
  throw new Error('The run never came to its end.');
}

/** Pours a part till its figure is called, the last of it in drips. @param more goes on pouring for so long after the call, ms */
export async function pourPart(page: Page, more = 0): Promise<void> {
  const says = page.getByTestId('pour-says');
  const panel = page.getByRole('group', { name: 'On the scale' });
  const hold = async (name: string, until: RegExp) => {
    await page.getByRole('button', { name }).hover();
    await page.mouse.down();
    await expect(panel.getByRole('heading')).toHaveText(until, { timeout: 30_000 });
    if (more) await page.waitForTimeout(more);
    await page.mouse.up();
  };
  if (more) await hold('Hold to pour', /^(Stop|Too much|All is in)/);
  else {
    await hold('Hold to pour', /^(Slowly now|Stop|Too much|All is in)/);
    await expect(page.getByTestId('scale-shows')).toContainText('rests', { timeout: 10_000 });
    if (!/^(Stop|Too much|All is in)/.test((await panel.getByRole('heading').textContent())!))
      await hold('Hold to drip', /^(Stop|Too much|All is in)/);
  }
  await expect(page.getByTestId('scale-shows')).toContainText('rests', { timeout: 10_000 });
  await says.waitFor();
}
