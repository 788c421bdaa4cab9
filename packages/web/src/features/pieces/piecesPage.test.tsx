import { describe, expect, it } from '@jest/globals';
import type { JobDetail } from '@steady-gleam/contracts';
import { act, screen, waitFor, within } from '@testing-library/react';
import { copyOf, hands, leads, openAt, press, tell } from '../../testing/program';

const jobOf = async (id: string) => (await tell<JobDetail>('GET', `/api/jobs/${id}`)).job;
const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep these areas' });
const area = (name: string) => within(screen.getByRole('group', { name }));
const write = async (field: HTMLElement, text: string) => {
  await hands.clear(field);
  if (text) await hands.type(field, text);
};

async function opened() {
  const id = await copyOf('Waltzer tub 3');
  const { client } = openAt(`/jobs/${id}/pieces`);
  await leads(/areas, \d+\.\d+ m² to spray\.$/);
  return { id, client };
}

describe('the pieces of a job', () => {
  it('an area is measured: a wrong figure stays named at its field, and nothing is kept by halves', async () => {
    const { id } = await opened();
    const before = await jobOf(id);
    expect(keep().disabled).toBe(true);
    await write(area('Tub, outside').getByLabelText('Height, m'), 'high');
    await write(area('Backrest').getByLabelText('Alike'), '2');
    await hands.click(keep());
    await waitFor(() =>
      expect(area('Tub, outside').getByLabelText('Height, m').getAttribute('aria-invalid')).toBe('true'),
    );
    await waitFor(() => expect(document.activeElement).toBe(area('Tub, outside').getByLabelText('Height, m')));
    expect((await jobOf(id)).version).toBe(before.version);
    // With a decimal comma, as many write it.
    await write(area('Tub, outside').getByLabelText('Height, m'), '0,75');
    await hands.click(keep());
    await waitFor(async () => expect((await jobOf(id)).version).toBe(before.version + 1));
    const kept = (await jobOf(id)).areas!;
    expect(kept.find((a) => a.name === 'Tub, outside')!.measures).toMatchObject({ height: 0.75 });
    expect(kept.find((a) => a.name === 'Backrest')!.count).toBe(2);
    await waitFor(() => expect(keep().disabled).toBe(true));
  });

  it('a second object has areas of its own; taken out with them, all is as it was', async () => {
    const { id } = await opened();
    const said = screen.getByRole('heading', { level: 1 }).textContent;
    const count = screen.getAllByRole('button', { name: /^Take out / }).length;
    await press('Add another like it');
    await leads(/^2 objects, /);
    expect(screen.getAllByRole('button', { name: /^Take out / })).toHaveLength(2 * count);
    const twice = Number(/(\d+\.\d+) m²/.exec(screen.getByRole('heading', { level: 1 }).textContent)![1]);
    expect(twice).toBeCloseTo(2 * Number(/(\d+\.\d+) m²/.exec(said)![1]), 1);
    await hands.click(keep());
    await waitFor(async () => expect((await jobOf(id)).objects).toHaveLength(2));
    const ids = (await jobOf(id)).areas!.map((a) => a.id);
    expect(new Set(ids).size).toBe(ids.length);
    // At once, whether or not what was kept is drawn already.
    await hands.click((await screen.findAllByRole('button', { name: 'Take it out with its areas' }))[1]!);
    await leads(said);
    await hands.click(keep());
    await waitFor(async () => expect((await jobOf(id)).areas).toHaveLength(count));
  });

  it('another device was first: it is said, what was typed stays, and the next try is kept', async () => {
    const { id } = await opened();
    await write(area('Backrest').getByLabelText('Alike'), '5');
    const { version, piece } = await jobOf(id);
    await tell('PATCH', `/api/jobs/${id}`, { version, piece: `${piece}, left` });
    await hands.click(keep());
    expect(await screen.findByText(/changed elsewhere/)).toBeTruthy();
    expect(area('Backrest').getByLabelText<HTMLInputElement>('Alike').value).toBe('5');
    await waitFor(async () => {
      await hands.click(keep());
      expect((await jobOf(id)).areas!.find((a) => a.name === 'Backrest')!.count).toBe(5);
    });
    // And the one object it is still goes by the piece's name.
    expect(await jobOf(id)).toMatchObject({ piece: `${piece}, left`, objects: null });
  });

  it('what is typed while it is being kept stays, and can be kept next; what another device keeps stands where nothing is typed', async () => {
    const { id, client } = await opened();
    await write(area('Backrest').getByLabelText('Alike'), '5');
    // Before the answer is there.
    await hands.click(keep());
    await write(area('Tub, outside').getByLabelText('Height, m'), '0.81');
    await waitFor(async () => expect((await jobOf(id)).areas!.find((a) => a.name === 'Backrest')!.count).toBe(5));
    await waitFor(() => expect(keep().disabled).toBe(false));
    expect(area('Tub, outside').getByLabelText<HTMLInputElement>('Height, m').value).toBe('0.81');
    await hands.click(keep());
    await waitFor(() => expect(keep().disabled).toBe(true));
    const { version, areas } = await jobOf(id);
    expect(areas!.find((a) => a.name === 'Tub, outside')!.measures.height).toBe(0.81);
    await tell('PATCH', `/api/jobs/${id}`, { version, areas: areas!.map((a) => ({ ...a, count: a.count + 1 })) });
    await act(() => client.invalidateQueries());
    await waitFor(() => expect(area('Backrest').getByLabelText<HTMLInputElement>('Alike').value).toBe('6'));
    expect(keep().disabled).toBe(true);
  });
});
