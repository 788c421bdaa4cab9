import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { hands, leads, openAt, press, tell, type } from '../../testing/program';

const names = async () =>
  (await tell<{ material: { name: string } }[]>('GET', '/api/materials')).map((m) => m.material.name);
const choose = async (label: string, option: string) =>
  hands.selectOptions(await screen.findByLabelText(label), option);

describe('the shop’s own materials', () => {
  it('a ground, copied and changed: a wrong figure is said at its field and kept', async () => {
    openAt('/materials');
    await leads(/^16 grounds/);
    await press('Copy Aqua pastel');
    await type('Name', 'Harbour pastel');
    await type('L*', '140');
    await press('Keep it');
    expect(await screen.findByText(/must be|lies between/)).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('L*').value).toBe('140');
    expect(await names()).not.toContain('Harbour pastel');
    await type('L*', '80');
    await type('Mark on the map', 'harbour');
    await press('Keep it');
    await leads('17 grounds, 1 of your own.');
    expect(await names()).toContain('Harbour pastel');
  });

  it('a pigment by the thickness of its film, and a mix with it', async () => {
    openAt('/materials?kind=pigment');
    await press('Add an effect pigment');
    await type('Name', 'Harbour blue');
    await type('Film, nm', '900');
    await press('Keep it');
    expect(await screen.findByText('at most 260 nm thick', { exact: false })).toBeTruthy();
    await type('Film, nm', '136');
    await press('Keep it');
    await waitFor(async () => expect(await names()).toContain('Harbour blue'));
    await press('Mixes');
    await press('Add a mix');
    await type('Name', 'Harbour pearl');
    await choose('Colour: pigment, dye or base colour', 'Harbour blue (pigment)');
    await press('Keep it');
    expect((await screen.findAllByText('Give its parts, or say the strengths another way.')).length).toBeGreaterThan(0);
    await type(/^Carrier, parts/, '100');
    await type('Its parts', '4');
    await press('Keep it');
    await waitFor(async () => expect(await names()).toContain('Harbour pearl'));
  });

  it.each([
    ['dye', 'Add a dye'],
    ['carrier', 'Add a carrier'],
  ])('a %s without a name is not kept', async (kind, add) => {
    openAt(`/materials?kind=${kind}`);
    await press(add);
    const before = (await names()).length;
    await press('Keep it');
    const form = within(await screen.findByRole('form', { name: 'Material' }));
    await waitFor(() => expect(form.getByLabelText('Name').getAttribute('aria-invalid')).toBe('true'));
    expect((await names()).length).toBe(before);
  });
});

describe('products and guns on the shelf', () => {
  it('a product that can’t be is named at its figure, which stays as it was typed', async () => {
    openAt('/products');
    await leads(/products on the shelf/);
    await press('Change Lantern mid coat');
    const form = within(await screen.findByRole('form'));
    const fields = form.getAllByRole<HTMLInputElement>('textbox');
    const solids = fields.find((f) =>
      /solids/i.test(form.getAllByText(/./, { selector: `label[for="${f.id}"]` })[0]?.textContent ?? ''),
    )!;
    await hands.clear(solids);
    await hands.type(solids, '400');
    await press(/^Keep/);
    await waitFor(() => expect(solids.getAttribute('aria-invalid')).toBe('true'));
    expect(solids.value).toBe('400');
  });

  it('a table of products with a row that is none says which line, and nothing of it is taken in', async () => {
    openAt('/products');
    await leads(/products on the shelf/);
    const before = (await tell<unknown[]>('GET', '/api/products')).length;
    const input = screen.getByLabelText('File of products');
    await hands.upload(input, new File(['name,kind\nHalf a row'], 'shelf.csv', { type: 'text/csv' }));
    expect((await screen.findByRole('alert')).textContent).toMatch(/^(Line \d|The|This|A )/);
    expect((await tell<unknown[]>('GET', '/api/products')).length).toBe(before);
  });

  it('guns stand beside them; one without a name is not kept', async () => {
    openAt('/products');
    await leads();
    await press('Guns');
    await press(/^Add a gun/);
    await press(/^Keep/);
    await waitFor(() => expect(document.querySelectorAll('[aria-invalid=true]').length).toBeGreaterThan(0));
  });
});
