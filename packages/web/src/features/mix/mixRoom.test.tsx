import { describe, expect, it } from '@jest/globals';
import type { Batch, JobDetail } from '@steady-gleam/contracts';
import { screen, waitFor, within } from '@testing-library/react';
import { copyOf, hands, leads, openAt, press, tell, type } from '../../testing/program';

const batchesOf = (id: string) => tell<Batch[]>('GET', `/api/batches?jobId=${id}`);
const mixingOf = async (id: string) => (await tell<JobDetail>('GET', `/api/jobs/${id}`)).job.mixing;

/** The mix room of a candy job, at the cup of its mix. */
async function opened(): Promise<string> {
  const id = await copyOf('Waltzer tub 3');
  openAt(`/jobs/${id}/mix`);
  await leads(/^Mix \d+ ml of Cinder candy\.$/);
  return id;
}
const rows = () => within(screen.getByRole('list', { name: 'Batches' })).getAllByRole('listitem');

describe('the mix room', () => {
  it('a cup is mixed, emptied and corrected; what can’t be is said at its field and changes nothing', async () => {
    const id = await opened();
    await press('Mixed: start its clock');
    await waitFor(async () => expect(await batchesOf(id)).toHaveLength(1));
    await leads(/^Cinder candy is mixed/);
    await type('Left over, ml', 'half');
    await press('Finished');
    expect(await screen.findByText('What is left in the cup; 0 when it is empty.')).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('Left over, ml').value).toBe('half');
    await type('Left over, ml', '99999');
    await press('Finished');
    expect(await screen.findByText('More can’t be left than was mixed.')).toBeTruthy();
    expect((await batchesOf(id))[0]!.endedAt).toBeNull();
    await type('Left over, ml', '120');
    await press('Finished');
    await waitFor(async () => expect((await batchesOf(id))[0]).toMatchObject({ leftMl: 120 }));
    expect(await within(rows()[0]!).findByText(/^Used \d+ ml[;.]/)).toBeTruthy();
    await press('Correct it');
    await type('Left over, ml', '150');
    await press('Keep the correction');
    await waitFor(async () => expect((await batchesOf(id))[0]).toMatchObject({ leftMl: 150 }));
    // What it said before stays to be read.
    expect(await within(rows()[0]!).findByText(/it said \d+ ml mixed, 120 ml left\.$/)).toBeTruthy();
  });

  it('a batch that was taken out counts for nothing, and is put back', async () => {
    const id = await opened();
    await press('Mixed: start its clock');
    await leads(/^Cinder candy is mixed/);
    await waitFor(() => expect(rows()).toHaveLength(1));
    await press('Take out');
    await leads(/^Mix \d+ ml of Cinder candy\.$/);
    expect(await screen.findByText(/was taken out: it counts for no gun and no job/)).toBeTruthy();
    expect(await batchesOf(id)).toEqual([]);
    await press('Put it back');
    await waitFor(async () => expect(await batchesOf(id)).toHaveLength(1));
    await leads(/^Cinder candy is mixed/);
  });

  it('a ratio that is none leaves nothing to mix, and what is right again mixes as before', async () => {
    await opened();
    const before = screen.getByRole('heading', { level: 1 }).textContent;
    const ratio = await screen.findByLabelText<HTMLInputElement>('Ratio, as on the sheet');
    const usual = ratio.value;
    await type('Ratio, as on the sheet', '2:0');
    expect(await screen.findByText(/Every part must be above zero/)).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Mixed: start its clock' }).disabled).toBe(true);
    await type('Ratio, as on the sheet', usual);
    await waitFor(() => expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(before));
  });

  it('another amount is poured to other marks, in the same shares', async () => {
    await opened();
    const shares = () =>
      within(screen.getByRole('table', { name: 'Batch' }))
        .getAllByRole('row')
        .slice(1)
        .map((row) =>
          Number(
            within(row)
              .getAllByRole('cell')[2]!
              .textContent.replace(/[^\d.]/g, ''),
          ),
        );
    await type('Mix instead, ml', '400');
    await leads('Mix 400 ml of Cinder candy.');
    const small = shares();
    await type('Mix instead, ml', '800');
    await leads('Mix 800 ml of Cinder candy.');
    const large = shares();
    expect(small.length).toBeGreaterThan(1);
    // To the millilitre that marks are drawn by.
    for (const [i, ml] of large.entries()) expect(Math.abs(ml - 2 * small[i]!)).toBeLessThanOrEqual(2);
    await type('Mix instead, ml', 'much');
    await leads('One figure needs changing.');
  });

  it('the weather is kept with the job, and air that can’t be stays named while something else is set', async () => {
    const id = await opened();
    await type('In the booth, °C', '95');
    await hands.tab();
    expect(await screen.findByText('No warmer than 60 °C.')).toBeTruthy();
    await hands.selectOptions(screen.getByLabelText('Gun'), 'Gun 1, 1.3 tip');
    await waitFor(async () => expect((await mixingOf(id))?.gunId).toBeTruthy());
    expect(screen.getByText('No warmer than 60 °C.')).toBeTruthy();
    await type('In the booth, °C', '27');
    await hands.tab();
    await waitFor(async () => expect((await mixingOf(id))?.temperatureC).toBe(27));
    expect(screen.queryByText('No warmer than 60 °C.')).toBeNull();
  });
});
