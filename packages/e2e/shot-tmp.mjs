import { chromium } from 'playwright';
const [, , base, ...pages] = process.argv;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-background-networking'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (e) => console.log('ERR', e.message));
for (const p of pages) {
  const [path, name, wait] = p.split('|');
  await page.goto(base + path);
  await page.waitForTimeout(Number(wait ?? 3000));
  await page.screenshot({ path: `/tmp/shots/${name}.png` });
}
await browser.close();
