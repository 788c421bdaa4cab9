import { describe, expect, it } from '@jest/globals';
import type { JobDetail } from '@steady-gleam/contracts';
import { screen, waitFor, within } from '@testing-library/react';
import { copyOf, hands, leads, openAt, press, tell, type } from '../../testing/program';

const detailOf = (id: string) => tell<JobDetail>('GET', `/api/jobs/${id}`);
const kindsOf = async (id: string) => (await detailOf(id)).events.map((e) => e.kind);

/** A job whose card has spoken, on its page of what is on the object; nothing is on. */
async function begun(): Promise<string> {
  const id = await copyOf('Dodgem shell 7');
  openAt(`/jobs/${id}/spray`);
  await leads(/^Spray \d/);
  return id;
}
const on = () => screen.getByRole('status', { name: 'Effect coats on' }).textContent;
const looks = async (view: string, verdict: string) =>
  hands.click(
    within(await screen.findByRole('group', { name: `Looks, ${view}` })).getByRole('button', { name: verdict }),
  );

describe('a job that is being sprayed, told at the desk', () => {
  it('counts what is on, asks for a look, and takes the last word back', async () => {
    const id = await begun();
    expect(on()).toBe('0');
    // One figure in the sentence and over the picture.
    const advised = /^Spray (\S+), then look/.exec(screen.getByRole('heading', { level: 1 }).textContent)![1]!;
    expect(
      screen.getByRole('heading', { name: new RegExp(`^What it should look like at ${advised} coats?`) }),
    ).toBeTruthy();
    expect(screen.getByText('Nothing has been sprayed yet.')).toBeTruthy();
    await press('½ more is on');
    await waitFor(() => expect(on()).toBe('½'));
    await press('¼ more is on');
    await waitFor(() => expect(on()).toBe('¾'));
    await waitFor(async () => expect(await kindsOf(id)).toContain('extra'));
    await press('Undo');
    await waitFor(() => expect(on()).toBe('½'));
    await press('Undo');
    await waitFor(() => expect(on()).toBe('0'));
    // Nothing is rubbed out: what was taken back stands in the log, and that it was.
    await waitFor(async () => expect((await kindsOf(id)).filter((k) => k === 'undo').length).toBeGreaterThan(1));
    expect(await kindsOf(id)).toContain('extra');
    await waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Undo' }).disabled).toBe(true));
  });

  it('a look that matches everywhere stops it; taken back, it is as it was', async () => {
    const id = await begun();
    await press('The next coat is on');
    await waitFor(() => expect(on()).toBe('1'));
    await type('Where', 'nose');
    await screen.findByRole('heading', { name: 'A look after 1 coat' });
    await looks('sun face', 'match');
    const spots = within(await screen.findByRole('list', { name: 'Spots' }));
    await spots.findByText('nose');
    expect(spots.getByRole('listitem').textContent).toMatch(/^nose, matches: like \d\.\d coats; leave it\./);
    await waitFor(async () => {
      const look = (await detailOf(id)).events.find((e) => e.kind === 'look');
      expect(look).toMatchObject({ coats: 1, look: { spot: 'nose', view: 'sun face', verdict: 'match' } });
    });
    await leads(/^Stop\. It is there\./);
    await hands.click(spots.getByRole('button', { name: 'Take back what was said at 1 coat' }));
    await waitFor(() => expect(screen.queryByRole('list', { name: 'Spots' })).toBeNull());
  });

  it('a place that is over is said so, and the ways out are one tap away', async () => {
    const id = await begun();
    for (let coats = 1; coats <= 4; coats++) {
      await press(/^(The next coat is on|One coat more is on)$/);
      await waitFor(() => expect(on()).toBe(String(coats)));
    }
    await looks('sun face', 'much darker');
    await looks('shade', 'much darker');
    await leads(/over/);
    const out = await screen.findByRole('link', { name: /^The ways out of what is off/ });
    expect(out.getAttribute('href')).toBe(`/jobs/${id}/inspect`);
    // What is on can't be taken off: nothing more is advised there.
    expect(screen.getByRole('heading', { level: 1 }).textContent).not.toMatch(/more, then look/);
  });

  it('readings of a place are kept with what was on; a wrong figure is named and nothing kept', async () => {
    const id = await begun();
    await press('The next coat is on');
    await waitFor(() => expect(on()).toBe('1'));
    await press('Readings');
    const first = await screen.findByLabelText<HTMLInputElement>('L* at row 1');
    await hands.type(first, 'high');
    await press('Keep this look');
    expect(await screen.findByText('L* must be a number.')).toBeTruthy();
    expect(first.value).toBe('high');
    expect((await detailOf(id)).spots).toEqual([]);
    const rows = screen.getAllByLabelText(/^L\* at row/).length;
    for (let row = 1; row <= rows; row++) {
      await type(`L* at row ${row}`, String(60 - row));
      await type(`a* at row ${row}`, '-12');
      await type(`b* at row ${row}`, '-30');
    }
    await press('Keep this look');
    await waitFor(async () =>
      expect((await detailOf(id)).spots).toMatchObject([{ label: 'all over', rungCoats: 1, state: 'wet' }]),
    );
    const spots = within(await screen.findByRole('list', { name: 'Spots' }));
    await hands.click(spots.getByRole('button', { name: 'Take the reading at 1 coat out' }));
    await waitFor(async () => expect((await detailOf(id)).spots).toEqual([]));
    expect(await screen.findByText(/The reading of all over was taken out\./)).toBeTruthy();
    await press('Put it back');
    await waitFor(async () => expect((await detailOf(id)).spots).toHaveLength(1));
  });

  it('a job without a card sends there, and says what is on all the same', async () => {
    const id = await copyOf('Saddle bells, second row');
    openAt(`/jobs/${id}/spray`);
    const link = await screen.findByRole('link', { name: 'Open the card' }, { timeout: 45_000 });
    expect(link.getAttribute('href')).toBe(`/jobs/${id}/card`);
    expect(screen.getByText(/^What is left to spray follows from the card/).textContent).toMatch(/0 of \d+ sprays on/);
  });
});
