import { describe, expect, it } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { atRest, copyOf, hands, leads, openAt, press, tell, type } from '../../testing/program';

interface Planned {
  readonly job: {
    readonly plan: {
      school: string;
      grip: boolean;
      bake: boolean;
      cells: unknown[];
      edits: Record<string, unknown>;
    } | null;
  };
}

const planOf = async (id: string) => (await tell<Planned>('GET', `/api/jobs/${id}`)).job.plan;

describe('the spray plan', () => {
  it('areas: a cell is given another count, and a figure that is none is named and not kept', async () => {
    const id = await copyOf('Waltzer tub 3');
    const { client } = openAt(`/jobs/${id}/plan`);
    await leads(/coats? of the effect/);
    await press(/^Cinder candy on Backrest: 3 coats/);
    await type('Coats', 'many');
    await press('Keep it so');
    expect((await screen.findByLabelText<HTMLInputElement>('Coats')).value).toBe('many');
    expect(screen.getByLabelText('Coats').getAttribute('aria-invalid')).toBe('true');
    expect((await planOf(id))?.cells ?? []).toEqual([]);
    await hands.click(
      within(screen.getByRole('group', { name: 'How far it goes' })).getByRole('button', { name: 'Blend' }),
    );
    await type('Coats', '4');
    await type(/^Ends at/, '40');
    await type(/^Fades over/, '300');
    await press('Keep it so');
    await waitFor(() => expect(screen.getByLabelText(/^Fades over/).getAttribute('aria-invalid')).toBe('true'));
    expect((await planOf(id))?.cells ?? []).toEqual([]);
    await type(/^Fades over/, '15');
    await press('Keep it so');
    await screen.findByRole('button', { name: /^Cinder candy on Backrest: 4 coats/ });
    await waitFor(async () => expect((await planOf(id))?.cells).toHaveLength(1));
    await atRest(client);
  });

  it('coats: another school is another count of coats; a bent figure stays as typed and is not stored', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/plan?show=coats`);
    await leads(/3 of them effect/);
    await press('Mist coats');
    await leads(/7 of them effect/);
    await press('Grip coat before the effect, not counted', 'checkbox');
    await waitFor(async () => expect(await planOf(id)).toMatchObject({ school: 'mist', grip: true }));
    const field = screen.getByLabelText<HTMLInputElement>('distance of Cinder candy 1');
    fireEvent.change(field, { target: { value: 'far' } });
    fireEvent.blur(field);
    expect(await screen.findByText('The distance must be a number.')).toBeTruthy();
    expect(field.value).toBe('far');
    fireEvent.change(field, { target: { value: '19' } });
    fireEvent.blur(field);
    await waitFor(async () => expect(JSON.stringify((await planOf(id))?.edits)).toContain('19'));
  });

  it('order: the air’s direction and what goes first change where to start', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/plan?show=order`);
    const before = (await leads(/^Start with/)).textContent;
    const list = await screen.findByRole('list', { name: 'Order of areas' });
    const last = within(list).getAllByRole('listitem').at(-1)!;
    const name = within(last)
      .getByRole('button', { name: /^Move / })
      .getAttribute('aria-label')!
      .slice(5);
    const first = within(last).getByRole('checkbox', { name: 'jamb' });
    await hands.click(first);
    await waitFor(() => expect(screen.getByRole('heading', { level: 1 }).textContent).not.toBe(before));
    expect(
      within(screen.getByRole('list', { name: 'Order of areas' }))
        .getAllByRole('listitem')
        .slice(0, 2)
        .some((li) => li.textContent.includes(name)),
    ).toBe(true);
  });

  it('passes: an unsteady arm is seen as stripes, and a way out is told', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/plan?show=passes`);
    await leads();
    await press('unsteady');
    await leads(/Stripes will be seen/);
    expect(await screen.findByRole('heading', { name: 'Cheapest way out' })).toBeTruthy();
    await type('Panels in a row, cm', '60, sixty');
    expect(await screen.findByText('A panel must be a number.')).toBeTruthy();
  });

  it('blend: a ground past the effect is a halo', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/plan?show=blend`);
    await leads(/The blend will/);
    const ground = within(await screen.findByRole('group', { name: 'Reach of ground' }));
    const ends = ground.getByLabelText('Ends at, cm');
    fireEvent.change(ends, { target: { value: '60' } });
    await leads('A halo would show.');
    fireEvent.change(ends, { target: { value: 'wide' } });
    expect(await ground.findByText(/number/)).toBeTruthy();
  });

  it('timeline: a surface near the dew point stops it, and the bake is left out on wish', async () => {
    const id = await copyOf('Waltzer tub 3');
    openAt(`/jobs/${id}/plan?show=time`);
    await leads(/^Start \d\d:\d\d, done at/);
    await type('Surface of the piece, °C', '9');
    await leads('Do not spray: the surface is too near to the dew point.');
    await type('Surface of the piece, °C', '');
    await leads(/^Start \d\d:\d\d, done at/);
    await press('Stand and bake at the end, 30 min', 'checkbox');
    await waitFor(async () => expect(await planOf(id)).toMatchObject({ bake: false }));
  });
});
