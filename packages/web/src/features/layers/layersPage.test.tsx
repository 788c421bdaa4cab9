import { describe, expect, it } from '@jest/globals';
import type { JobDetail } from '@steady-gleam/contracts';
import { screen, waitFor } from '@testing-library/react';
import { copyOf, hands, leads, openAt, press, tell, type } from '../../testing/program';

const jobOf = async (id: string) => (await tell<JobDetail>('GET', `/api/jobs/${id}`)).job;
const keep = () =>
  screen.getByRole<HTMLButtonElement>('button', { name: /^(Keep these layers|These layers are kept)$/ });
/** The whole build as the page leads with it, um. */
const build = () => Number(/(\d+) µm/.exec(screen.getByRole('heading', { level: 1 }).textContent)![1]);

async function opened(): Promise<string> {
  const id = await copyOf('Waltzer tub 3');
  openAt(`/jobs/${id}/layers`);
  await leads(/µm/);
  return id;
}

describe('the layers of a job', () => {
  it('follow from the pick until they are made its own, and again on wish', async () => {
    const id = await opened();
    expect(keep().disabled).toBe(true);
    expect((await jobOf(id)).stacks).toBeNull();
    const before = build();
    await press('+ clear');
    await waitFor(() => expect(build()).toBeGreaterThan(before));
    await hands.click(keep());
    await waitFor(async () =>
      expect((await jobOf(id)).stacks?.[0]!.layers.filter((l) => l.kind === 'clear')).toHaveLength(2),
    );
    await waitFor(() => expect(keep().disabled).toBe(true));
    await press('Let them follow from the pick');
    await waitFor(async () => expect((await jobOf(id)).stacks).toBeNull());
    await waitFor(() => expect(build()).toBe(before));
  });

  it('have one build: in the page’s sentence, in its strip and the job’s header, and on the map where the pick stands', async () => {
    const id = await copyOf('Dodgem shell 7');
    const { unmount } = openAt(`/jobs/${id}/layers`);
    await leads(/µm/);
    const um = build();
    const strips = await screen.findAllByRole('group', { name: /^Film section: / });
    expect(strips).toHaveLength(2);
    for (const strip of strips) expect(strip.getAttribute('aria-label')).toContain(`total ${um} µm, planned`);
    unmount();
    openAt(`/jobs/${id}/map`);
    const line = (await screen.findByText('whole build')).parentElement!;
    expect(line.textContent).toContain(`${um} µm`);
  });

  it('what was done is undone and done again, step by step', async () => {
    await opened();
    const heights = [build()];
    for (const name of ['+ sealer', '+ clear']) {
      await press(name);
      await waitFor(() => expect(build()).toBeGreaterThan(heights.at(-1)!));
      heights.push(build());
    }
    await press('Undo');
    await waitFor(() => expect(build()).toBe(heights[1]));
    await press('Undo');
    await waitFor(() => expect(build()).toBe(heights[0]));
    await press('Redo');
    await waitFor(() => expect(build()).toBe(heights[1]));
  });

  it('a limit that is no figure is not kept as if it were one, and what is typed after one was kept is a change again', async () => {
    const id = await opened();
    const field = screen.getByLabelText<HTMLInputElement>(/^Build not to exceed/);
    const usual = field.value;
    await type(/^Build not to exceed/, 'thin');
    expect(keep().textContent).toBe('Keep these layers');
    await hands.click(keep());
    await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'));
    expect(field.value).toBe('thin');
    expect((await jobOf(id)).filmLimitUm).toBeNull();
    await type(/^Build not to exceed/, '140');
    await hands.click(keep());
    await waitFor(async () => expect((await jobOf(id)).filmLimitUm).toBe(140));
    await waitFor(() => expect(keep().disabled).toBe(true));
    await type(/^Build not to exceed/, usual);
    await waitFor(() => expect(keep().disabled).toBe(false));
  });
});
