import type { Page } from '@playwright/test';

/** Buttons that pass a check as it should be. */
const PASSES = [
  'It is ready: start the run',
  'Shaken: go on',
  'It hides: go on',
  'They hang so',
  'One coat more, as planned',
  'Looked: go on',
  'Closed',
  'Masked',
  'Unmasked',
  'The tail is fine',
  'Nothing shows: to clear',
  'Flat and clean',
];

/**
 * Does what the booth says is next: passes a check, or lays a coat on one area, ticked dull where its clock still runs.
 * @returns kinds of the events that were told
 */
export async function stepOn(page: Page): Promise<string[]> {
  const check = page.getByTestId('check');
  const coat = page.getByTestId('coat');
  await check.or(coat).waitFor();
  if (await check.count()) {
    const starts = (await page.getByRole('button', { name: PASSES[0]!, exact: true }).count()) > 0;
    for (const name of PASSES) {
      const button = page.getByRole('button', { name, exact: true });
      if (!(await button.count())) continue;
      await button.click();
      return starts ? ['start', 'check'] : ['check'];
    }
    throw new Error(`No button passes “${await check.textContent()}”.`);
  }
  const dull = page.getByRole('button', { name: 'It is dull', exact: true });
  const kinds: string[] = [];
  if ((await dull.count()) && (await dull.isEnabled())) {
    await dull.click();
    kinds.push('dull');
  }
  await page.getByRole('button', { name: 'Sprayed: next', exact: true }).click();
  return [...kinds, 'sprayed'];
}

/** Steps on until the booth's heading says something, and tells every coat that was laid on the way. */
export async function stepUntil(page: Page, said: RegExp): Promise<string[]> {
  const laid: string[] = [];
  for (let i = 0; i < 120; i++) {
    await page.getByTestId('check').or(page.getByTestId('coat')).waitFor();
    const title = (await page.getByRole('heading', { level: 1 }).textContent())!;
    if (said.test(title)) return laid;
    const where = page.getByTestId('piece');
    if (await where.count()) laid.push(`${title} ${await where.textContent()}`);
    else laid.push(`[${title}]`);
    await stepOn(page);
  }
  throw new Error(`Never came to ${String(said)}: ${laid.join('; ')}`);
}
