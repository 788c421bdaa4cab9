import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/** Serious and critical faults axe finds on the page as it stands. */
async function found(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
}

/** Until nothing of the page has changed for a third of a second, or five have gone by (clocks tick). */
const atRest = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise<void>((done) => {
        const over = (): void => {
          seen.disconnect();
          clearTimeout(quiet);
          clearTimeout(most);
          done();
        };
        let quiet = setTimeout(over, 330);
        const most = setTimeout(over, 5_000);
        const seen = new MutationObserver(() => {
          clearTimeout(quiet);
          quiet = setTimeout(over, 330);
        });
        seen.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
      }),
  );

export async function seriousFaults(page: Page): Promise<string[]> {
  // In the middle of a change of colour a contrast is neither that before nor that after.
  await page.addStyleTag({
    content: '*, *::before, *::after { transition: none !important; animation: none !important }',
  });
  await atRest(page);
  const first = await found(page);
  // What left the page while it was looked through has no name and no place (":root"): a fault is there twice.
  return first.length ? found(page) : first;
}
