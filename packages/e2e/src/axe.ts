import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** Serious and critical faults axe finds on the page as it stands. */
export async function seriousFaults(page: Page): Promise<string[]> {
  // In the middle of a change of colour a contrast is neither that before nor that after.
  await page.addStyleTag({
    content: '*, *::before, *::after { transition: none !important; animation: none !important }',
  });
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
}
