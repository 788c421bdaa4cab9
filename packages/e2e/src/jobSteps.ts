import { expect, type Page } from '@playwright/test';

/** Begins a candy job, and is then at its target. */
export async function startCandyJob(page: Page, address: string, piece: string): Promise<void> {
  await page.goto(`${address}/jobs/new`);
  await page.getByLabel('Piece').fill(piece);
  await page.getByLabel('Has to match').fill('tub 5, backrest');
  await page.getByRole('button', { name: 'Candy over metallic' }).click();
  await page.getByRole('button', { name: 'Start this job' }).click();
  await expect(page).toHaveURL(/\/target$/);
}
