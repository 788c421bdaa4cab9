import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { copyOf, hands, leads, openAt, press, tell, type } from '../../testing/program';

const pieceOf = async (id: string) =>
  (await tell<{ job: { piece: string; status: string } }>('GET', `/api/jobs/${id}`)).job;

describe('what can be done with a job as a whole', () => {
  it('it is renamed, and an empty name is named at its field with what was typed kept', async () => {
    const id = await copyOf('Waltzer tub 3');
    const { piece } = await pieceOf(id);
    openAt(`/jobs/${id}/pieces`);
    await press(`More for ${piece}`);
    await press('Rename', 'menuitem');
    await type('Piece', '  ');
    await press('Keep the name');
    expect(await screen.findByText(/^Say what is to be finished/)).toBeTruthy();
    await type('Piece', 'Tub for the walk');
    await press('Keep the name');
    await waitFor(async () => expect((await pieceOf(id)).piece).toBe('Tub for the walk'));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('is copied under a name of its own, and one is at the copy then', async () => {
    const id = await copyOf('Waltzer tub 3');
    const { piece } = await pieceOf(id);
    const { router } = openAt(`/jobs/${id}/pieces`);
    await press(`More for ${piece}`);
    await press('Copy it', 'menuitem');
    await type('Name of the copy', 'Tub, once more');
    await hands.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Copy it' }));
    await waitFor(() => expect(router.state.location.pathname).not.toContain(id));
    expect(router.state.location.pathname).toMatch(/\/pieces$/);
    const other = router.state.location.pathname.split('/')[2]!;
    expect((await pieceOf(other)).piece).toBe('Tub, once more');
  });

  it('says what is still open before it is finished, and undoes it', async () => {
    const id = await copyOf('Waltzer tub 3');
    const { piece } = await pieceOf(id);
    openAt(`/jobs/${id}/pieces`);
    await press(`More for ${piece}`);
    await press('Finish this job', 'menuitem');
    expect(await screen.findByText(/^Still open: .*nothing was mixed/)).toBeTruthy();
    await press('Finish it');
    await screen.findByText(`${piece} is finished.`);
    expect((await pieceOf(id)).status).toBe('finished');
    await press('Undo');
    await waitFor(async () => expect((await pieceOf(id)).status).toBe('open'));
  });

  it('is taken out of the list, stands below it, and comes back', async () => {
    const id = await copyOf('Waltzer tub 3');
    const { piece } = await pieceOf(id);
    openAt(`/?words=${piece.slice(-8)}`);
    await leads();
    await press(`More for ${piece}`);
    await press('Take it out', 'menuitem');
    await hands.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Take it out' }));
    await screen.findByText(`${piece} was taken out.`);
    await press(/^Taken out: \d+$/);
    const row = within(await screen.findByRole('list', { name: 'Taken out' }))
      .getByText(new RegExp(piece))
      .closest('li')!;
    await hands.click(within(row).getByRole('button', { name: 'Put back' }));
    await waitFor(async () =>
      expect((await tell<{ id: string }[]>('GET', '/api/removed-jobs')).map((j) => j.id)).not.toContain(id),
    );
  });

  it('is put away and brought back', async () => {
    const id = await copyOf('Waltzer tub 3');
    const { piece } = await pieceOf(id);
    openAt(`/?words=${piece.slice(-8)}`);
    await press(`More for ${piece}`);
    await press('Put it away', 'menuitem');
    await screen.findByText(`${piece} was put away.`);
    expect((await pieceOf(id)).status).toBe('away');
    await press('Undo');
    await waitFor(async () => expect((await pieceOf(id)).status).toBe('open'));
  });
});
