import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import type { JobEvent } from '@steady-gleam/core/jobs';
import { copyOf, hands, leads, openAt, press, tell } from '../../testing/program';

const logOf = async (id: string) =>
  (await tell<{ events: JobEvent[] }>('GET', `/api/jobs/${id}`)).events.map((e) => e.kind);
const kept = () => waitFor(() => expect(screen.getByTestId('queue').textContent).toBe('Everything is kept'));
/** Buttons that pass a check as it should be. */
const PASSES =
  /^(Shaken: go on|It hides: go on|They hang so|One coat more, as planned|Looked: go on|Closed|Masked|Unmasked|Flat and clean)$/;

/** Passes a check, or lays a coat, ticked dull where its clock still runs. */
async function stepOn() {
  const shown = () => (screen.queryByTestId('check') ?? screen.getByTestId('coat')).closest('main, body')!.textContent;
  const before = shown();
  const enabled = (name: RegExp | string) =>
    screen.queryAllByRole<HTMLButtonElement>('button', { name }).find((b) => !b.disabled);
  const dull = enabled('It is dull');
  if (dull) await hands.click(dull);
  await waitFor(() => expect(enabled(screen.queryByTestId('check') ? PASSES : 'Sprayed: next')).toBeTruthy());
  await hands.click(enabled(screen.queryByTestId('check') ? PASSES : 'Sprayed: next')!);
  await waitFor(() => expect(shown()).not.toBe(before));
}

describe('the booth', () => {
  it('one step after the other, each kept in the log; the last tap is taken back', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/booth`);
    await leads('Make it ready');
    expect(await logOf(id)).toEqual([]);
    await press('It is ready: start the run');
    await waitFor(() => expect(screen.getByTestId('coat').textContent).toBe('Sealer'));
    expect(screen.getByTestId('piece').textContent).toMatch(/^on /);
    await press(/^Sprayed/);
    await kept();
    const before = await logOf(id);
    expect(before).toContain('start');
    expect(before).toContain('sprayed');
    await press('Undo last tap');
    await kept();
    await waitFor(async () => expect((await logOf(id)).at(-1)).toBe('undo'));
  });

  it('a note and a fault go into the log; a coat is left out', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/booth`);
    await press('It is ready: start the run');
    await press('Note or photo');
    const note = await screen.findByRole('textbox');
    await hands.type(note, 'nib by the handle');
    await press(/^Keep/);
    await waitFor(async () => expect(await logOf(id)).toContain('note'));
    await press('A fault');
    await press(/^Run, sag/);
    expect(await screen.findByRole('alert')).toBeTruthy();
    await waitFor(async () => expect((await logOf(id)).length).toBeGreaterThan(2));
  });

  it('runs through ground and effect to its first look, by what stands on its buttons', async () => {
    const id = await copyOf('Carousel horse, saddle cloth');
    openAt(`/jobs/${id}/booth`);
    await press('It is ready: start the run');
    for (let i = 0; i < 24 && !screen.queryByText(/^Stop\. Look/); i++) await stepOn();
    await kept();
    expect((await logOf(id)).filter((kind) => kind === 'sprayed').length).toBeGreaterThan(2);
    // What follows from the look is one tap, however much it tells; one undo takes it all back.
    const stop = (await leads(/^Stop\. Look/)).textContent;
    const on = () => screen.getByTestId('on').textContent;
    const [before, said] = [await logOf(id), on()];
    const less = within(await screen.findByRole('group', { name: 'What follows' })).getByRole('button', {
      name: / (instead|more)$/,
    });
    await hands.click(less);
    await waitFor(() => expect(screen.getByRole('heading', { level: 1 }).textContent).not.toBe(stop));
    await kept();
    const told = (await logOf(id)).slice(before.length);
    expect(told).toContain('check');
    expect(told).toContain('extra');
    await press('Undo last tap');
    await leads(stop);
    await kept();
    expect(on()).toBe(said);
    expect((await logOf(id)).slice(before.length + told.length)).toEqual(told.map(() => 'undo'));
  });

  it('a coat more, enough, and a reason: what is left out stands in the log with why', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/booth`);
    await press('It is ready: start the run');
    await press(/^Sprayed/);
    await kept();
    const planned = screen.getByTestId('on').textContent;
    await press('More or enough');
    await press('Leave this coat out');
    await press('not needed here');
    await waitFor(async () => expect(await logOf(id)).toContain('skip'));
    await waitFor(() => expect(screen.getByTestId('on').textContent).not.toBe(planned));
    const { events } = await tell<{ events: JobEvent[] }>('GET', `/api/jobs/${id}`);
    expect(events.find((e) => e.kind === 'skip')).toMatchObject({ text: 'not needed here' });
    await press('Undo last tap');
    await waitFor(() => expect(screen.getByTestId('on').textContent).toBe(planned));
  });
});
