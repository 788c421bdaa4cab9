import { describe, expect, it } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { faultsOf, hands, leads, openAt, press, tell, type, typeReadings } from '../../testing/program';

type Lab = readonly [number, number, number];
interface BankReading {
  readonly finishId: string;
  readonly coats: number | null;
  readonly angles: readonly { readonly lab: Lab }[];
}

const finishOf = async (words: string) =>
  (await tell<{ rows: { id: string; name: string }[] }>('GET', `/api/finishes?words=${words}`)).rows.find(
    (f) => !f.name.endsWith('a start'),
  )!;

describe('the bank', () => {
  it('asks for a reading, and names the nearest card and the count between two rungs', async () => {
    const wing = await finishOf('wing');
    const { readings } = await tell<{ readings: BankReading[] }>('GET', '/api/bank/readings');
    const [low, high] = [3, 4].map((coats) => readings.find((r) => r.finishId === wing.id && r.coats === coats)!);
    openAt('/bank');
    await leads(/^\d+ finishes\.$/);
    await press('A reading');
    await press('Find the nearest');
    expect(await screen.findByText('Enter at least one angle, or choose a file.')).toBeTruthy();
    await typeReadings(
      low!.angles.map(({ lab }, k): Lab => {
        const at = (j: 0 | 1 | 2) => Number((0.6 * lab[j] + 0.4 * high!.angles[k]!.lab[j]).toFixed(1));
        return [at(0), at(1), at(2)];
      }),
    );
    await press('Find the nearest');
    const answer = await leads(/^Nearest: the wing itself, rung 3\.[3-5]\./);
    expect(answer.textContent).toMatch(/Within 0\.\d dE00 at every angle/);
    const first = within(screen.getByRole('list', { name: 'Nearest' })).getAllByRole('listitem')[0]!;
    expect(first.textContent).toContain('the wing itself');
  });

  it('is searched by words, by family and by what is proven; what leads nowhere is said', async () => {
    const { router } = openAt('/bank');
    await leads(/^\d+ finishes\.$/);
    await type('Search the bank', 'organ');
    await waitFor(() =>
      expect(within(screen.getByRole('list', { name: 'Finishes' })).getAllByRole('listitem')).toHaveLength(1),
    );
    expect(router.state.location.search).toContain('words=organ');
    await type('Search the bank', 'nothing like it');
    expect((await leads('Nothing in the bank answers to that.')).textContent).toBeTruthy();
  });

  it('a finish keeps its name and codes; the same code twice is named at the field', async () => {
    const organ = await finishOf('organ');
    const { container } = openAt(`/bank/${organ.id}`);
    await leads();
    await type('Codes', 'R-3, R-3');
    await press('Keep name and codes');
    expect(await screen.findByText('The same code stands there twice.')).toBeTruthy();
    await type('Codes', 'R-3, rack 2');
    await press('Keep name and codes');
    await waitFor(() =>
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep name and codes' }).disabled).toBe(true),
    );
    const { finish } = await tell<{ finish: { codes: string[] } }>('GET', `/api/finishes/${organ.id}`);
    expect(finish.codes).toEqual(['R-3', 'rack 2']);
    expect(await faultsOf(container)).toEqual([]);
  });

  it('a finish is taken as a start: another one, told as such', async () => {
    const wing = await finishOf('wing');
    const { router } = openAt(`/bank/${wing.id}`);
    await leads();
    await press('Take as a start');
    await leads(/a start/);
    expect(router.state.location.pathname).not.toContain(wing.id);
  });

  it('a file that is torn is said to be, and one that is whole is offered as what it holds', async () => {
    const wing = await finishOf('wing');
    const text = JSON.stringify(await tell('GET', `/api/finishes/${wing.id}/finish.json`));
    openAt('/bank');
    await leads(/^\d+ finishes\.$/);
    const input = screen.getByLabelText('File of finishes');
    await hands.upload(input, new File([text.slice(0, 300)], 'torn.finish.json', { type: 'application/json' }));
    expect((await screen.findByRole('alert')).textContent).toContain('torn.finish.json can’t be opened');
    await hands.upload(input, new File([text], 'wing.finish.json', { type: 'application/json' }));
    const inFile = await screen.findByRole('region', { name: 'In the file' });
    expect(inFile.textContent).toContain(wing.name);
    // It is one of the bank's own.
    expect(within(inFile).getByLabelText('It is in the bank already')).toBeTruthy();
  });
});
