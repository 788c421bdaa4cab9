import { describe, expect, it } from '@jest/globals';
import { FAMILY_IDS } from '@steady-gleam/core/finishes';
import { screen } from '@testing-library/react';
import { atRest, DEMO_JOB, faultsOf, leads, misnamed, openAt, tell } from '../testing/program';

const PLACES = [
  ...['/', '/jobs/new', '/jobs/new?design=1', '/find', '/try-out', '/bank', '/products', '/shop', '/faults'],
  ...['ground', 'pigment', 'dye', 'carrier', 'system'].map((kind) => `/materials?kind=${kind}`),
  ...['/practice', '/practice/count', '/practice/mix'],
  ...['instrument', 'scale', 'thermometer'].map((device) => `/shop/devices/${device}`),
];
const OF_A_JOB = [
  ...['target', 'map', 'find', 'recipes', 'sample', 'layers', 'card', 'pieces', 'mix', 'booth', 'spray', 'inspect'],
  ...['areas', 'order', 'coats', 'passes', 'blend', 'time'].map((part) => `plan?show=${part}`),
].map((place) => `/jobs/${DEMO_JOB}/${place}`);

async function isSound(path: string) {
  const { container, client } = openAt(path);
  const heading = await leads();
  await atRest(client);
  expect(heading.textContent).toMatch(/\w/);
  expect(screen.queryByText(/could not be (drawn|opened)|nothing at this address|undefined|NaN|\[object/)).toBeNull();
  expect(await faultsOf(container)).toEqual([]);
  expect(misnamed(container)).toEqual([]);
}

describe('every page of the program, on a real server', () => {
  it.each([...PLACES, ...OF_A_JOB])('%s is drawn, without faults for whoever can’t see it', isSound);

  it('a finish of the bank and its card', async () => {
    const { job } = await tell<{ job: { finishId: string } }>('GET', `/api/jobs/${DEMO_JOB}`);
    await isSound(`/bank/${job.finishId}`);
  });
});

describe('a job of every family', () => {
  it.each(['card', 'booth', 'spray'])('its %s is drawn', async (place) => {
    expect(FAMILY_IDS).toHaveLength(7);
    for (const family of FAMILY_IDS) {
      const { rows } = await tell<{ rows: { id: string }[] }>('GET', `/api/jobs?page=0&family=${family}`);
      const { id } = rows[0]!;
      const { client, unmount } = openAt(`/jobs/${id}/${place}`);
      await leads();
      await atRest(client);
      expect(screen.queryByText(/could not be (drawn|opened)|undefined|NaN|\[object/)).toBeNull();
      unmount();
    }
  });

  it('says of an address that leads nowhere that it does', async () => {
    openAt('/jobs/00000000-0000-4000-8000-00000000dead/target');
    expect(await screen.findByText('This job is not here.')).toBeTruthy();
  });
});
