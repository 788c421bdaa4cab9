import { describe, expect, it } from '@jest/globals';
import { screen } from '@testing-library/react';
import { answerWith, renderAt } from '../../testing/page';
import { JobsPage } from './JobsPage';

const none = { rows: [], total: 0, states: { open: 0, finished: 0, away: 0 } };

describe('the jobs of a shop that has none yet', () => {
  it('greets with its doors and says what to do first', async () => {
    answerWith({ 'GET /api/jobs': none, 'GET /api/removed-jobs': [], 'GET /api/damaged': [] });
    renderAt('/', <JobsPage />);
    expect(await screen.findByText('No jobs yet. Start with the piece you want to match.')).toBeTruthy();
    const link = (name: RegExp) => screen.getByRole('link', { name }).getAttribute('href');
    expect(link(/^Match something/)).toBe('/jobs/new');
    expect(link(/^Design a look/)).toBe('/jobs/new?design=1');
    expect(link(/^Begin a try-out/)).toBe('/try-out');
    // Without a demo there is none to look round in.
    expect(screen.queryByRole('link', { name: /demo/ })).toBeNull();
  });

  it('says so, and offers the way back, where the server fails', async () => {
    answerWith({});
    renderAt('/', <JobsPage />);
    expect(await screen.findByText('The jobs could not be opened.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Try again' })).toBeTruthy();
  });
});
