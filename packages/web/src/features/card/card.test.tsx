import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { atRest, copyOf, hands, leads, openAt, press, tell } from '../../testing/program';

interface Detail {
  readonly card: { readonly rungs: number[] } | null;
  readonly verdicts: readonly { readonly coats: number; readonly verdict: string }[];
  readonly rungs: readonly { readonly rungCoats: number; readonly readings: unknown[] }[];
}

const detailOf = (id: string) => tell<Detail>('GET', `/api/jobs/${id}`);
const looks = async (view: string, verdict: string) =>
  hands.click(
    within(await screen.findByRole('group', { name: `Looks, ${view}` })).getByRole('button', { name: verdict }),
  );

describe('the let-down card', () => {
  it('a new one is planned: rungs by the model or by hand', async () => {
    const id = await copyOf('Dodgem shell 7');
    openAt(`/jobs/${id}/card`);
    await leads();
    await press('Put this card aside, begin a new one');
    const keep = await screen.findByRole('button', { name: 'Keep this plan' });
    await press(/^Let the model choose/);
    await hands.selectOptions(await screen.findByLabelText('Gun'), 'Gun 1, 1.3 tip');
    await hands.click(keep);
    await screen.findByRole('button', { name: /^Enter the rung with/ });
    expect((await detailOf(id)).card!.rungs.length).toBeGreaterThan(1);
  });

  it('a rung judged by eye is kept place by place, and unsaid by the same button', async () => {
    const id = await copyOf('Dodgem shell 7');
    openAt(`/jobs/${id}/card`);
    await leads();
    await press(/^Rung of 3 coats/);
    await press('By eye');
    await looks('sun face', 'match');
    await waitFor(async () => expect((await detailOf(id)).verdicts.filter((v) => v.coats === 3)).toHaveLength(1));
    await looks('shade', 'darker');
    await waitFor(async () => expect((await detailOf(id)).verdicts.filter((v) => v.coats === 3)).toHaveLength(2));
  });

  it('a rung is read: an empty form is named, figures are kept with what the card says then', async () => {
    const id = await copyOf('Dodgem shell 7');
    const { client } = openAt(`/jobs/${id}/card`);
    await leads();
    await press(/^Rung of 4 coats/);
    await press('Keep this rung');
    expect(await screen.findByText(/^Enter at least one angle/)).toBeTruthy();
    const fields = screen.getAllByRole('textbox', { name: /^L\* at row/ });
    for (const [i, field] of fields.entries()) {
      await hands.type(field, String(52 - i));
      await hands.type(screen.getByLabelText(`a* at row ${i + 1}`), '-18');
      await hands.type(screen.getByLabelText(`b* at row ${i + 1}`), '-33');
    }
    await press('Keep this rung');
    await waitFor(async () => expect((await detailOf(id)).rungs.map((r) => r.rungCoats)).toContain(4));
    await atRest(client);
    expect((await leads()).textContent).toMatch(/Spray|look/);
  });
});
