import { describe, expect, it } from '@jest/globals';
import type { JobDetail, ReadingSet } from '@steady-gleam/contracts';
import { countOf, FAMILIES, type FinishFamily } from '@steady-gleam/core/finishes';
import { MIXES } from '@steady-gleam/core/materials';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { countCoats } from '../../shared/jobModel';
import { hands, leads, openAt, press, tell, type } from '../../testing/program';

const detailOf = (id: string) => tell<JobDetail>('GET', `/api/jobs/${id}`);
const targetOf = async (id: string) => (await detailOf(id)).target;

/** A job that was just begun. */
async function begun(family: FinishFamily = 'pearl'): Promise<string> {
  const id = crypto.randomUUID();
  await tell('POST', '/api/jobs', {
    ...{ id, piece: `Helter-skelter ${id.slice(0, 8)}`, matching: 'the boat beside it', family },
    mixId: MIXES.find((m) => m.family === family)!.id,
  });
  return id;
}

const LABS = { 15: [88, 2, 1], 25: [80, 2, 2], 45: [64, 1, 3], 75: [52, 1, 3], 110: [48, 0, 3] } as const;
/** What was read, evenly moved. */
const readings = (off = 0) =>
  Object.entries(LABS).map(([angle, [l, a, b]]) => ({
    ...{ spot: '1', incidence: 45, aspecular: Number(angle) },
    ...{ l: l + off, a, b },
  }));
const setOf = (more: Partial<ReadingSet> = {}, off = 0) => ({
  ...{ id: crypto.randomUUID(), kind: 'target', rungCoats: null, source: 'typed', label: '', objectId: null },
  ...{ state: 'cleared', doubt: null, takenAt: '2026-05-04T08:00:00.000Z', readings: readings(off) },
  ...more,
});
/** Something that was read of a job's finish. */
const store = async (id: string, set: ReturnType<typeof setOf>) =>
  tell('POST', `/api/finishes/${(await detailOf(id)).job.finishId}/readings`, set);
/** A job that was read. */
async function read(family?: FinishFamily): Promise<string> {
  const id = await begun(family);
  await store(id, setOf());
  return id;
}
/** What is typed for one angle, row by row. */
async function typeRow(row: number, [l, a, b]: readonly (number | string)[]) {
  await type(`L* at row ${row}`, String(l));
  await type(`a* at row ${row}`, String(a));
  await type(`b* at row ${row}`, String(b));
}

describe('a target that is typed', () => {
  it('names what is wrong at its field, keeps what stands there, and stores nothing before all is right', async () => {
    const id = await begun();
    openAt(`/jobs/${id}/target`);
    await leads(/^Nothing read yet/);
    await press('Keep this target');
    expect(await screen.findByText('Enter at least one angle, or choose a file.')).toBeTruthy();
    await typeRow(1, [88, 2, 1]);
    await typeRow(3, ['sixty', 1, 3]);
    await press('Keep this target');
    expect(await screen.findByText('L* must be a number.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('L* at row 3').value).toBe('sixty');
    expect(await targetOf(id)).toBeNull();
    await type('L* at row 3', '64,5');
    await type('Angle at row 3', '15');
    await press('Keep this target');
    expect((await screen.findAllByText('This angle is here twice.')).length).toBeGreaterThan(0);
    await type('Angle at row 3', '45');
    await press('Keep this target');
    await leads('Read at 2 angles, one spot.');
    const target = (await targetOf(id))!;
    expect(target).toMatchObject({ source: 'typed', kind: 'target', doubt: null });
    expect(target.readings.map((r) => [r.aspecular, r.incidence, r.l])).toEqual([
      [15, 45, 88],
      [45, 45, 64.5],
    ]);
  });

  it('has rows for as many angles as were read, and none for one that is taken away', async () => {
    const id = await begun();
    openAt(`/jobs/${id}/target`);
    await leads(/^Nothing read yet/);
    expect(screen.getAllByLabelText(/^L\* at row/)).toHaveLength(5);
    await press('Add an angle');
    await type('Angle at row 6', '60');
    await typeRow(6, [58, 1, 3]);
    await press('Remove row 1');
    expect(screen.getAllByLabelText(/^L\* at row/)).toHaveLength(5);
    await press('Keep this target');
    await leads('Read at one angle, one spot.');
    expect((await targetOf(id))!.readings.map((r) => r.aspecular)).toEqual([60]);
  });
});

describe('a target from a table', () => {
  const paste = async (text: string) => {
    const field = await screen.findByLabelText('Rows from a spreadsheet, with their column names');
    fireEvent.change(field, { target: { value: text } });
    await press('Read this table');
  };

  it('is shown before it is kept; a wrong line is named by its number, and nothing is taken', async () => {
    const id = await begun();
    openAt(`/jobs/${id}/target`);
    await press('Paste a table');
    await paste('spot,angle,L,a,b\n1,15,88,2,1\n1,25,bright,2,2');
    expect(await screen.findByText('Nothing was taken from this file.', { exact: false })).toBeTruthy();
    expect(screen.getByText(/^Line 3: /)).toBeTruthy();
    await paste('spot,angle,L,a,b\n1,15,88,2,1\n1,45,64,1,3\n2,15,87,2,1\n2,45,63,1,3');
    expect(await screen.findByText(/What you pasted: 2 spots, angles 15°, 45°/)).toBeTruthy();
    expect(screen.queryByText('Nothing was taken from this file.', { exact: false })).toBeNull();
    await press('Not these');
    expect(await targetOf(id)).toBeNull();
    await press('Read this table');
    await press('Take these readings');
    await leads('Read at 2 angles, 2 spots.');
    expect((await targetOf(id))!.source).toBe('csv');
  });

  it('the very same once more is noticed before it is kept', async () => {
    const id = await begun();
    const table = 'spot,angle,L,a,b\n1,15,88,2,1\n1,45,64,1,3';
    openAt(`/jobs/${id}/target`);
    await press('Paste a table');
    await paste(table);
    await press('Take these readings');
    await leads('Read at 2 angles, one spot.');
    await press('Read it again');
    await press('Paste a table');
    await paste(table);
    expect(await screen.findByText(/stored already/)).toBeTruthy();
  });

  it('comes in files too, and one that is no text of readings is answered in a sentence', async () => {
    const id = await begun();
    openAt(`/jobs/${id}/target`);
    const choose = async (name: string, text: string) => {
      const file = new File([text], name);
      // What every browser's files have and the test page's lack.
      if (!('text' in file)) Object.assign(file, { text: () => Promise.resolve(text) });
      fireEvent.change(await screen.findByLabelText('File of readings'), { target: { files: [file] } });
    };
    await choose('notes.csv', 'The tub wants a candy like the one beside it.');
    expect(await screen.findByText('Nothing was taken from this file.', { exact: false })).toBeTruthy();
    await choose('boat.csv', 'angle;L;a;b\n15;88,5;2;1\n45;64,5;1;3');
    expect(await screen.findByText(/^boat\.csv: one spot, angles 15°, 45°/)).toBeTruthy();
    await press('Take these readings');
    await leads('Read at 2 angles, one spot.');
    expect((await targetOf(id))!.readings[0]).toMatchObject({ aspecular: 15, l: 88.5 });
  });
});

describe('a target without an instrument', () => {
  it('is picked on the screen with a screen’s doubt, and said so', async () => {
    const id = await begun();
    openAt(`/jobs/${id}/target`);
    await press('pick a colour on this screen');
    fireEvent.change(await screen.findByLabelText('Colour'), { target: { value: '#808080' } });
    // sRGB 128 is L* 53.6 (IEC 61966-2-1, CIE 15).
    expect(await screen.findByText('L* 54, a* 0, b* 0')).toBeTruthy();
    await press('Leave it');
    expect(await targetOf(id)).toBeNull();
    await press('pick a colour on this screen');
    await press('Keep this colour');
    await leads('Read at one angle, one spot.');
    expect(await screen.findByText(/Picked on a screen: good to 6 units at best/)).toBeTruthy();
    expect(await targetOf(id)).toMatchObject({ source: 'chip', doubt: 6 });
  });
});

describe('a target that was read', () => {
  it('is corrected figure by figure; what was there is kept, and used again on wish', async () => {
    const id = await read();
    openAt(`/jobs/${id}/target`);
    await leads('Read at 5 angles, one spot.');
    await press('Correct a figure');
    expect((await screen.findByLabelText<HTMLInputElement>('L* at row 1')).value).toBe('88');
    await type('L* at row 1', '84');
    await press('Keep this target');
    const before = within(await screen.findByRole('region', { name: 'Read before' }));
    expect((await targetOf(id))!.readings[0]!.l).toBe(84);
    expect(before.getByText(/dE00 \d\.\d from what is in force/)).toBeTruthy();
    await hands.click(before.getByRole('button', { name: 'Use these again' }));
    await waitFor(async () => expect((await targetOf(id))!.readings[0]!.l).toBe(88));
  });

  it('is taken out as entered wrongly, and put back', async () => {
    const id = await read();
    openAt(`/jobs/${id}/target`);
    await press('Take these readings out');
    await leads(/^Nothing read yet/);
    expect(await targetOf(id)).toBeNull();
    await press('Put it back');
    await leads('Read at 5 angles, one spot.');
    expect(await targetOf(id)).not.toBeNull();
  });

  it('tells of a spot that stands apart, and of a finish that is uneven', async () => {
    const id = await begun();
    const odd = ['1', '2', '3'].flatMap((spot) =>
      readings(spot === '3' ? 6 : Number(spot) / 10).map((r) => ({ ...r, spot })),
    );
    await store(id, setOf({ readings: odd }));
    openAt(`/jobs/${id}/target`);
    await leads('Read at 5 angles, 3 spots.');
    expect(await screen.findByText(/^Spot 3 \(\d\.\d dE00 off\) stands apart/)).toBeTruthy();
  });
});

describe('limits of a match', () => {
  it('are typed by the angle, wrong ones are named, and half-typed ones outlive another change of the job', async () => {
    const id = await read();
    openAt(`/jobs/${id}/target`);
    await leads('Read at 5 angles, one spot.');
    await type('Limit at 15 degrees', 'tight');
    await press('Keep for this job');
    await waitFor(() => expect(screen.getByLabelText('Limit at 15 degrees').getAttribute('aria-invalid')).toBe('true'));
    expect((await detailOf(id)).job.limits).toBeNull();
    await type('Limit at 15 degrees', '0.9');
    // What its peel is like is another thing of the same job.
    await hands.click(
      within(screen.getByRole('group', { name: 'Peel of what has to be matched' })).getAllByRole('button')[0]!,
    );
    await waitFor(async () => expect((await detailOf(id)).job.texture).not.toBeNull());
    await screen.findByRole('heading', { name: /^Its peel is/ });
    expect(screen.getByLabelText<HTMLInputElement>('Limit at 15 degrees').value).toBe('0.9');
    await press('Keep for this job');
    await waitFor(async () =>
      expect((await detailOf(id)).job.limits).toMatchObject({ meeting: 'edge', own: [{ aspecular: 15, limit: 0.9 }] }),
    );
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Keep for this job' })).toBeNull());
    await press(/^Blended/);
    await waitFor(async () => expect((await detailOf(id)).job.limits).toMatchObject({ meeting: 'blend' }));
  });
});

describe('variant chips', () => {
  it('are ranked against the object, corrected, taken out and put back', async () => {
    const id = await read();
    await store(id, setOf({ kind: 'chip', label: 'lighter' }, 4));
    openAt(`/jobs/${id}/target`);
    const panel = within(await screen.findByRole('region', { name: 'Variant chips' }));
    expect(panel.getByText(/^Nearest to the object is lighter/)).toBeTruthy();
    await hands.click(panel.getByRole('button', { name: 'Add a chip' }));
    await type('Name of the chip', 'standard');
    for (const [row, lab] of Object.values(LABS).entries()) await typeRow(row + 1, [lab[0] + 1, lab[1], lab[2]]);
    await press('Keep this chip');
    await panel.findByText(/^Nearest to the object is standard/);
    const rows = () =>
      within(panel.getByRole('table', { name: 'Chips ranked' }))
        .getAllByRole('row')
        .slice(1);
    expect(rows().map((r) => /standard|lighter/.exec(r.textContent)?.[0])).toEqual(['standard', 'lighter']);
    await hands.click(within(rows()[0]!).getByRole('button', { name: 'Take out' }));
    await panel.findByText(/^Nearest to the object is lighter/);
    await hands.click(panel.getByRole('button', { name: 'Put it back' }));
    await panel.findByText(/^Nearest to the object is standard/);
    expect((await detailOf(id)).chips.map((c) => c.label).sort()).toEqual(['lighter', 'standard']);
  });
});

describe('a metal flake’s target', () => {
  it('is how much of the ground it covers: the wish is kept with the count that lays it', async () => {
    const id = await begun('metal-flake');
    openAt(`/jobs/${id}/target`);
    const wanted = within(await screen.findByRole('region', { name: 'Wanted cover' }, { timeout: 45_000 }));
    await hands.click(wanted.getByRole('button', { name: 'Half' }));
    const said = (await leads(/^50 % covered over/)).textContent;
    await hands.click(wanted.getByRole('button', { name: /^Want 50 %: plan/ }));
    await waitFor(async () => expect((await detailOf(id)).job.mixing?.flake).toMatchObject({ cover: 0.5 }));
    const { job } = await detailOf(id);
    expect(FAMILIES[job.family].wanted).toBe('cover');
    // One count stands in the sentence and in the job.
    expect(said).toContain(countCoats(countOf(job.family, job.pick!)));
    expect(await wanted.findByRole('button', { name: 'It is what the job has' })).toBeTruthy();
  });
});
