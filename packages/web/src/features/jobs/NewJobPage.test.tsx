import { describe, expect, it } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { answerWith, renderAt } from '../../testing/page';
import { NewJobPage } from './NewJobPage';

const noFinishes = { rows: [], total: 0 };

describe('beginning a job', () => {
  it('asks for the piece at its field, keeps what was typed and sends nothing', async () => {
    const asked = answerWith({ 'GET /api/finishes': noFinishes });
    const user = userEvent.setup();
    renderAt('/jobs/new', <NewJobPage />);
    await user.type(screen.getByLabelText('Has to match'), 'shell 4');
    await user.click(screen.getByRole('button', { name: 'Start this job' }));
    expect(await screen.findByText(/Say what is to be finished/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Has to match').value).toBe('shell 4');
    expect(asked.filter((a) => a.path.startsWith('POST'))).toEqual([]);
  });

  it('goes on to the target, or to the map where a look is designed', async () => {
    for (const [from, to] of [
      ['/jobs/new', /\/target$/],
      ['/jobs/new?design=1', /\/map\?design=1$/],
    ] as const) {
      const asked = answerWith({
        'GET /api/finishes': noFinishes,
        'POST /api/jobs': (body: unknown) => ({ ...(body as object), pick: null }),
      });
      const user = userEvent.setup();
      const { unmount } = renderAt(from, <NewJobPage />);
      await user.type(screen.getByLabelText('Piece'), 'Dodgem shell 12');
      await user.click(screen.getByRole('button', { name: 'Start this job' }));
      await waitFor(() => expect(screen.getByTestId('where').textContent).toMatch(to));
      const sent = asked.find((a) => a.path === 'POST /api/jobs')!.body as Record<string, unknown>;
      expect(sent).toMatchObject({ piece: 'Dodgem shell 12', finishId: null });
      unmount();
    }
  });

  it('another family brings its own mix into the cup', async () => {
    const asked = answerWith({
      'GET /api/finishes': noFinishes,
      'POST /api/jobs': (body: unknown) => ({ ...(body as object), pick: null }),
    });
    const user = userEvent.setup();
    renderAt('/jobs/new', <NewJobPage />);
    await user.type(screen.getByLabelText('Piece'), 'Moon face');
    await user.click(screen.getByRole('button', { name: 'Colour-shift' }));
    await user.click(screen.getByRole('button', { name: 'Start this job' }));
    await waitFor(() => expect(asked.some((a) => a.path === 'POST /api/jobs')).toBe(true));
    expect(asked.at(-1)!.body ?? asked.find((a) => a.path === 'POST /api/jobs')!.body).toMatchObject({
      mixId: 'moon-face-shift',
    });
  });

  it('says the server’s sentence at the field it is about', async () => {
    answerWith({
      'GET /api/finishes': noFinishes,
      'POST /api/jobs': () =>
        new Response(
          JSON.stringify({
            code: 'badRequest',
            message: 'Something needs changing.',
            fields: { piece: 'That is taken.' },
          }),
          { status: 400 },
        ),
    });
    const user = userEvent.setup();
    renderAt('/jobs/new', <NewJobPage />);
    await user.type(screen.getByLabelText('Piece'), 'Dodgem shell 12');
    await user.click(screen.getByRole('button', { name: 'Start this job' }));
    expect(await screen.findByText('That is taken.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Piece').value).toBe('Dodgem shell 12');
  });
});
