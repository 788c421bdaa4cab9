import { describe, expect, it } from '@jest/globals';
import type { JobDetail } from '@steady-gleam/contracts';
import { screen, waitFor, within } from '@testing-library/react';
import { copyOf, hands, leads, openAt, press, tell } from '../../testing/program';

const detailOf = (id: string) => tell<JobDetail>('GET', `/api/jobs/${id}`);
const looksOf = async (id: string) =>
  (await detailOf(id)).events.flatMap((e) => (e.kind === 'look' && e.look ? [e.look] : []));

/** A job with two coats of its effect on, on its page of places and views. */
async function begun(): Promise<string> {
  const id = await copyOf('Dodgem shell 7');
  const page = openAt(`/jobs/${id}/spray`);
  await leads(/^Spray \d/);
  for (const coats of ['1', '2']) {
    await press('The next coat is on');
    await waitFor(() => expect(screen.getByRole('status', { name: 'Effect coats on' }).textContent).toBe(coats));
  }
  await waitFor(async () => expect((await detailOf(id)).events.some((e) => e.kind === 'sprayed')).toBe(true));
  page.unmount();
  openAt(`/jobs/${id}/inspect`);
  await leads();
  return id;
}

describe('the inspection of a job', () => {
  it('before anything is on says where it will be looked at, and leads to the first coat', async () => {
    const id = await copyOf('Dodgem shell 7');
    openAt(`/jobs/${id}/inspect`);
    await leads();
    expect(await screen.findByRole('heading', { name: /^Looked at then/ })).toBeTruthy();
    expect(screen.getAllByRole('link').some((a) => a.getAttribute('href') === `/jobs/${id}/booth`)).toBe(true);
  });

  it('place by place: a word is kept with its place and view, held against another place, and taken back', async () => {
    const id = await begun();
    await press('+ a place');
    await hands.type(await screen.findByLabelText('Place, for instance: nose'), 'nose');
    await press('Look there');
    const pad = within(await screen.findByRole('region', { name: 'nose, sun, face' }));
    expect(pad.getByRole<HTMLButtonElement>('button', { name: 'Take it back' }).disabled).toBe(true);
    await hands.click(pad.getByRole('button', { name: /^a little lighter/ }));
    await waitFor(async () =>
      expect(await looksOf(id)).toMatchObject([{ spot: 'nose', view: 'sun face', verdict: 'lighter', against: null }]),
    );
    await waitFor(() => expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(/nose/i));
    expect(await screen.findByRole('heading', { name: /ways|out/i, level: 2 })).toBeTruthy();
    await hands.click(pad.getByRole('button', { name: 'Take it back' }));
    await waitFor(async () => expect((await looksOf(id)).at(-1)).toMatchObject({ spot: 'nose', verdict: null }));
  });

  it('what matches in one view is not yet called matched; from everywhere it has to be looked at it is', async () => {
    const id = await begun();
    const [first] = (await detailOf(id)).job.areas ?? [];
    const cells = await screen.findAllByRole('button', { name: new RegExp(`^${first!.name}, .*: not looked at$`) });
    expect(cells.length).toBeGreaterThan(3);
    for (const [at, cell] of cells.entries()) {
      await hands.click(cell);
      await press('It matches');
      await waitFor(() => expect(cell.getAttribute('aria-label')).toMatch(/= match$/));
      if (at === 0) await leads(/^It matches where it was looked at\. Not to be called matched yet: look /);
    }
    await leads('It matches from everywhere it has to be looked at.');
    await waitFor(async () => expect((await looksOf(id)).map((l) => l.verdict)).toEqual(cells.map(() => 'match')));
  });
});
