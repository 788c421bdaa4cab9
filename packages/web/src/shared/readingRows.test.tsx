import { describe, expect, it } from '@jest/globals';
import { screen } from '@testing-library/react';
import { openAt, press, type } from '../testing/program';

describe('rows of readings', () => {
  it('say what is wrong below the figure it is about, and no figure leaves its column', async () => {
    openAt('/find');
    await type('L* at row 1', 'abc');
    const field = screen.getByLabelText<HTMLInputElement>('L* at row 1');
    const cells = field.parentElement!.parentElement!.children.length;
    await press('Find the mix');
    const said = await screen.findByText('L* must be a number.');
    expect(said.parentElement).toBe(field.parentElement);
    expect(field.getAttribute('aria-describedby')).toBe(said.id);
    expect(field.value).toBe('abc');
    expect(field.parentElement!.parentElement!.children).toHaveLength(cells);
  });
});
