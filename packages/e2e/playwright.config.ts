import { defineConfig } from '@playwright/test';
import { CHROMIUM, CHROMIUM_FLAGS } from './src/browser';

export default defineConfig({
  testDir: './src',
  testMatch: '*.spec.ts',
  globalSetup: './src/fillData.ts',
  // Generous: the journey takes 30 s on a calm machine and three times that in a slow spell.
  timeout: 400_000,
  expect: { timeout: 20_000 },
  // Files side by side on both cores of a small machine; the journeys of one file after each other.
  workers: 2,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: '../../.cache/e2e-report.json' }]],
  outputDir: '../../test-results',
  use: {
    // A click that finds nothing says so soon, rather than at the test's own end.
    actionTimeout: 30_000,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
    launchOptions: { executablePath: CHROMIUM, args: CHROMIUM_FLAGS },
  },
});
