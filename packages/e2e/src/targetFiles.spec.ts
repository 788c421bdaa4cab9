import { expect, test } from '@playwright/test';
import { seriousFaults } from './axe';
import { demoJob, journeyServer } from './journeyServer';
import { startCandyJob } from './jobSteps';

const server = journeyServer(4754);

test('a photo with a grey card gives a colour with a wide doubt', async ({ page }) => {
  await startCandyJob(page, server.address, 'Waltzer tub 11');
  await page.getByRole('button', { name: 'photo with a grey card' }).click();
  // A warm light over a grey of L* 50 (sRGB 119) and a blue (sRGB 40, 90, 150): both reddened alike in linear light.
  const picture = await page.evaluate(() => {
    const linear = (v: number) => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
    const byte = (v: number) => Math.round(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055));
    const warm = (rgb: number[]) => `rgb(${rgb.map((v, k) => byte(linear(v) * [1.25, 1, 0.7][k]!)).join(',')})`;
    const canvas = document.createElement('canvas');
    canvas.width = 600;
    canvas.height = 300;
    const ink = canvas.getContext('2d')!;
    ink.fillStyle = warm([119, 119, 119]);
    ink.fillRect(0, 0, 300, 300);
    ink.fillStyle = warm([40, 90, 150]);
    ink.fillRect(300, 0, 300, 300);
    return canvas.toDataURL('image/png').split(',')[1]!;
  });
  await page
    .getByLabel('Photo with a grey card')
    .setInputFiles({ name: 'p.png', mimeType: 'image/png', buffer: Buffer.from(picture, 'base64') });
  // CIELAB of that blue under D65 is 37.6, 2.6, -37.2 for the 2 degree observer (IEC 61966-2-1 and CIE 15); the 10 degree one,
  // for whom all readings are, sees a smooth blue a little lighter and greener.
  const lab = page.getByTestId('photo-lab');
  await expect(lab).toContainText(/L\* 3[89]\.\d, a\* (-[01]|[0-2])\.\d, b\* -3[567]\.\d/);
  await expect(lab).toContainText('give or take 4 units');
  expect(await seriousFaults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Keep this as the target' }).click();
  await expect(page.getByText('From a photo: good to 4 units at best')).toBeVisible();
});

test('a file of blank lines never freezes the page, and a mangled one is answered in a sentence', async ({ page }) => {
  await page.goto(`${server.address}/jobs/${demoJob(1)}/target`);
  const choose = (name: string, text: string) =>
    page.getByLabel('File of readings').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await choose('blank.csv', `spot,aspecular,L,a,b\n1,45,50,1,2\n${'\n'.repeat(900_000)}`);
  await expect(page.getByText('blank.csv: one spot, angles 45°')).toBeVisible({ timeout: 8000 });
  await choose('nested.xml', '<a>'.repeat(300_000));
  await expect(page.getByText('Nothing was taken from this file.')).toBeVisible({ timeout: 15_000 });
});
