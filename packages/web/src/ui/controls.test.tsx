import { beforeEach, describe, expect, it, jest } from '@jest/globals';
import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import fc from 'fast-check';
import { useState } from 'react';
import { FileButton } from '../shared/FileButton';
import { Toggles } from '../shared/Toggles';
import { metricText, shownText, unitsOf, useUnits } from '../shared/units';
import { renderAt } from '../testing/page';
import { Field } from './Field';
import { Input } from './Input';
import { MeasureField } from './MeasureField';
import { Slide } from './Slide';
import { Unseen } from './Unseen';

const hand = userEvent.setup();
beforeEach(() => localStorage.clear());

describe('a field', () => {
  it('is called what stands above it, and what is said below belongs to it', () => {
    renderAt('/', <Field label="Piece" hint="For instance: dodgem shell 7" defaultValue="" />);
    const field = screen.getByLabelText('Piece');
    expect(field.getAttribute('aria-invalid')).toBe('false');
    const below = document.getElementById(field.getAttribute('aria-describedby')!)!;
    expect(below.textContent).toBe('For instance: dodgem shell 7');
  });

  it('says what is wrong in place of its hint', () => {
    renderAt('/', <Field label="Piece" hint="For instance" error="Name the piece." defaultValue="" />);
    expect(screen.queryByText('For instance')).toBeNull();
    expect(screen.getByLabelText('Piece').getAttribute('aria-invalid')).toBe('true');
  });

  it('is a list, several lines or a line, and asks for figures’ keys where a figure is typed', () => {
    renderAt(
      '/',
      <>
        <Field label="Kind" select defaultValue="b">
          <option value="a">A</option>
          <option value="b">B</option>
        </Field>
        <Field label="Note" multiline defaultValue="" />
        <Field label="Film" decimal defaultValue="" />
        <Input aria-label="Bare" defaultValue="x" />
      </>,
    );
    expect(screen.getByRole<HTMLSelectElement>('combobox', { name: 'Kind' }).value).toBe('b');
    expect(screen.getByLabelText('Note').tagName).toBe('TEXTAREA');
    expect(screen.getByLabelText('Film').getAttribute('inputmode')).toBe('decimal');
    expect(screen.getByLabelText('Bare').getAttribute('autocomplete')).toBe('off');
  });
});

function Film({ start }: { start: string }) {
  const [metric, setMetric] = useState(start);
  const units = useUnits();
  return (
    <>
      <MeasureField
        measure="film"
        label="Film"
        value={metric}
        onValue={setMetric}
        error={metric === '25.4' ? 'Over 20 µm.' : undefined}
      />
      <output data-testid="metric">{metric}</output>
      <button onClick={units.toggle}>Switch</button>
      <button onClick={() => setMetric('50.8')}>From elsewhere</button>
    </>
  );
}

describe('a figure with a unit', () => {
  const field = () => screen.getByLabelText<HTMLInputElement>(/^Film/);
  const metric = () => screen.getByTestId('metric').textContent;

  it('is typed in the painter’s unit and kept in metric; the switch changes how it is shown, not what it is', async () => {
    renderAt('/', <Film start="12.7" />);
    expect(screen.getByLabelText('Film, µm')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Switch' }));
    expect(screen.getByLabelText('Film, mil')).toBeTruthy();
    expect([field().value, metric()]).toEqual(['0.5', '12.7']);
    await hand.clear(field());
    await hand.type(field(), '1');
    expect(metric()).toBe('25.4');
    // What is said of it is said in its unit too.
    expect(screen.getByText('Over 0.79 mil.')).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'Switch' }));
    expect(field().value).toBe('25.4');
  });

  it('stays as it is typed while it is typed, and follows what comes from elsewhere', async () => {
    localStorage.setItem('steady-gleam.units', 'us');
    renderAt('/', <Film start="12.7" />);
    await hand.clear(field());
    await hand.type(field(), '1.');
    expect(field().value).toBe('1.');
    await hand.type(field(), '50');
    expect(field().value).toBe('1.50');
    expect(Number(metric())).toBeCloseTo(38.1, 6);
    await hand.click(screen.getByRole('button', { name: 'From elsewhere' }));
    expect(field().value).toBe('2');
  });

  it('that is no number stays, for the check to name it', async () => {
    localStorage.setItem('steady-gleam.units', 'us');
    renderAt('/', <Film start="12.7" />);
    await hand.clear(field());
    await hand.type(field(), 'thin');
    expect([field().value, metric()]).toEqual(['thin', 'thin']);
  });

  it('comes back within a thousandth through what is shown of it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 900, noNaN: true }),
        fc.constantFrom('film', 'volume', 'pressure', 'distance'),
        (v, of) => {
          const measure = of;
          const shown = shownText(measure, String(v), 'us');
          const back = Number(metricText(measure, shown, 'us'));
          expect(Math.abs(back / v - 1)).toBeLessThan(0.006);
          expect(shownText(measure, String(v), 'metric')).toBe(String(v));
        },
      ),
    );
  });

  it('in a sentence is told in the painter’s units, whatever stands around it', () => {
    const { sentence } = unitsOf('us');
    expect(sentence('At most 200 µm.')).toBe('At most 7.87 mil.');
    expect(sentence('Hold it 15 cm away, 45 cm/s, at 20 °C and 1.4 bar.')).toBe(
      'Hold it 5.9 in away, 17.7 in/s, at 68 °F and 20 psi.',
    );
    expect(sentence('5 minutes, 3 metres')).toBe('5 minutes, 3 metres');
    expect(unitsOf('metric').sentence('At most 200 µm.')).toBe('At most 200 µm.');
  });
});

describe('what is moved or pressed', () => {
  it('a slide is the browser’s own range, with its bounds and its step, and tells figures', async () => {
    const moved = jest.fn<(v: number) => void>();
    function Strength() {
      const [v, setV] = useState(1);
      return (
        <Slide
          min={0.5}
          max={1.1}
          step={0.05}
          value={v}
          onChange={(next) => (moved(next), setV(next))}
          aria-label="Strength"
          marks={[{ value: 1, said: '1×' }]}
        />
      );
    }
    renderAt('/', <Strength />);
    const slide = screen.getByRole<HTMLInputElement>('slider', { name: 'Strength' });
    expect([slide.min, slide.max, slide.step, slide.value]).toEqual(['0.5', '1.1', '0.05', '1']);
    fireEvent.change(slide, { target: { value: '1.05' } });
    expect(moved.mock.calls).toEqual([[1.05]]);
    expect(slide.value).toBe('1.05');
    expect(screen.getByText('1×').style.left).toBe(`${((1 - 0.5) / (1.1 - 0.5)) * 100}%`);
  });

  it('one of a few is chosen by pressing it; pressing it again leaves it', async () => {
    const picked = jest.fn();
    renderAt(
      '/',
      <Toggles
        label="Light"
        value="day"
        choices={[
          ['day', 'daylight'],
          ['bulb', 'bulb'],
        ]}
        onPick={picked}
      />,
    );
    expect(screen.getByRole('button', { name: 'daylight', pressed: true })).toBeTruthy();
    await hand.click(screen.getByRole('button', { name: 'bulb' }));
    await hand.click(screen.getByRole('button', { name: 'daylight' }));
    expect(picked.mock.calls).toEqual([['bulb']]);
  });

  it('a file is asked for by its button, and the same one can be chosen twice', async () => {
    const taken = jest.fn<(file: File) => void>();
    renderAt(
      '/',
      <FileButton label="File of products" accept=".csv" onFile={taken}>
        Take in a CSV
      </FileButton>,
    );
    const opened = jest.spyOn(HTMLInputElement.prototype, 'click');
    await hand.click(screen.getByRole('button', { name: 'Take in a CSV' }));
    expect(opened).toHaveBeenCalled();
    opened.mockRestore();
    const input = screen.getByLabelText<HTMLInputElement>('File of products');
    const file = new File(['x'], 'shelf.csv');
    await hand.upload(input, file);
    await hand.upload(input, file);
    expect(taken).toHaveBeenCalledTimes(2);
    expect(input.value).toBe('');
  });

  it('what is only for screen readers is there and not seen', () => {
    renderAt('/', <Unseen>Open</Unseen>);
    expect(screen.getByText('Open')).toBeTruthy();
  });
});
