import { describe, expect, it, jest } from '@jest/globals';
import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { number, object, string } from 'yup';
import { renderAt } from '../testing/page';
import { ApiFailure } from '../shared/apiClient';
import { Field } from './Field';
import { MeasureField } from './MeasureField';
import { checkWith, formPath, type Checked } from '../shared/checkWith';
import { useTypedForm } from './useTypedForm';

interface Typed {
  readonly name: string;
  readonly film: string;
}
interface Kept {
  readonly name: string;
  readonly film: number;
}

const schema = object({
  name: string().trim().required('Name it.'),
  film: number()
    .typeError('The film must be a number.')
    .required()
    .min(1, 'At least 1 µm.')
    .max(200, 'At most 200 µm.'),
}).noUnknown();

const check = (typed: Typed): Checked<Kept> =>
  typed.name === 'twice'
    ? { ok: false, faults: { '': 'There can be one of these only.' } }
    : checkWith(schema, { name: typed.name, film: typed.film.trim() === '' ? NaN : Number(typed.film) });

function Form({ keep, start }: { keep: (kept: Kept) => Promise<unknown>; start?: Typed }) {
  const form = useTypedForm<Typed, Kept>({
    start: start ?? { name: '', film: '' },
    check,
    keep,
    fieldOf: (path) => formPath(path).replace(/^layer\./, ''),
  });
  return (
    <form noValidate onSubmit={form.onSubmit}>
      <Field label="Name" {...form.text('name')} />
      <MeasureField measure="film" label="Film" {...form.measure('film')} />
      <p data-testid="failure">{form.failure}</p>
      <button type="submit" disabled={form.busy}>
        Keep it
      </button>
      <button
        type="button"
        onClick={() => void form.run(() => Promise.reject(new ApiFailure('notFound', 'It is gone.')))}
      >
        Remove
      </button>
      <button type="button" onClick={() => form.setAll({ name: 'clear', film: '28' })}>
        As usual
      </button>
    </form>
  );
}

/** A form of what somebody has, who may have something else meanwhile. */
function Following({ own, keep }: { own: Typed; keep: (kept: Kept) => Promise<unknown> }) {
  const form = useTypedForm<Typed, Kept>({
    start: own,
    check,
    keep,
    meant: (t) => [t.name.trim(), Number(t.film)],
  });
  return (
    <form noValidate onSubmit={form.onSubmit}>
      <Field label="Name" {...form.text('name')} />
      <MeasureField measure="film" label="Film" {...form.measure('film')} />
      <p data-testid="changed">{form.changed ? 'changed' : 'as it is'}</p>
      <button type="submit">Keep it</button>
      <button type="button" onClick={form.keepBy((kept) => keep({ ...kept, film: 2 * kept.film }))}>
        Keep it twice as thick
      </button>
    </form>
  );
}

const nothing = async () => undefined;
const hand = userEvent.setup();
const name = () => screen.getByLabelText<HTMLInputElement>('Name');
const film = () => screen.getByLabelText<HTMLInputElement>(/^Film/);
const press = (label: string) => hand.click(screen.getByRole('button', { name: label }));

describe('a form that is typed', () => {
  it('says what is wrong at each field, keeps what was typed and stores nothing', async () => {
    const keep = jest.fn<(kept: Kept) => Promise<unknown>>(nothing);
    renderAt('/', <Form keep={keep} />);
    await hand.type(film(), 'thick');
    await press('Keep it');
    expect(await screen.findByText('Name it.')).toBeTruthy();
    expect(screen.getByText('The film must be a number.')).toBeTruthy();
    expect(film().value).toBe('thick');
    expect(name().getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(name().getAttribute('aria-describedby')!)!.textContent).toBe('Name it.');
    expect(keep).not.toHaveBeenCalled();
    // Whoever types goes on where it is wrong.
    await waitFor(() => expect(document.activeElement).toBe(name()));
  });

  it('says nothing before the first try, and follows what is typed after it', async () => {
    renderAt('/', <Form keep={nothing} />);
    await hand.type(film(), '900');
    expect(film().getAttribute('aria-invalid')).toBe('false');
    await press('Keep it');
    expect(await screen.findByText('At most 200 µm.')).toBeTruthy();
    await hand.clear(film());
    await hand.type(film(), '25');
    await waitFor(() => expect(screen.queryByText('At most 200 µm.')).toBeNull());
    // What is still wrong stays said.
    expect(screen.getByText('Name it.')).toBeTruthy();
  });

  it('keeps what its check makes of the text, once', async () => {
    const keep = jest.fn<(kept: Kept) => Promise<unknown>>(nothing);
    renderAt('/', <Form keep={keep} />);
    await hand.type(name(), '  Lagoon pearl ');
    await hand.type(film(), '9');
    await press('Keep it');
    await waitFor(() => expect(keep).toHaveBeenCalledTimes(1));
    expect(keep).toHaveBeenCalledWith({ name: 'Lagoon pearl', film: 9 });
  });

  it('what the server refuses stands at its field, or below where it belongs to none', async () => {
    const keep = jest
      .fn<(kept: Kept) => Promise<unknown>>()
      .mockRejectedValueOnce(
        new ApiFailure('badRequest', 'Look at the fields.', { 'layer.name': 'There is one already.' }),
      )
      .mockRejectedValueOnce(new ApiFailure('offline', 'The server does not answer.'));
    renderAt('/', <Form keep={keep} start={{ name: 'clear', film: '28' }} />);
    await press('Keep it');
    expect(await screen.findByText('There is one already.')).toBeTruthy();
    expect(screen.getByTestId('failure').textContent).toBe('');
    await press('Keep it');
    await waitFor(() => expect(screen.getByTestId('failure').textContent).toBe('The server does not answer.'));
    expect(screen.queryByText('There is one already.')).toBeNull();
    expect(name().value).toBe('clear');
  });

  it('is said in a word of its own however soon it is refused: the mark of the refusal before does not stand in its way', async () => {
    const frame = jest.spyOn(window, 'requestAnimationFrame').mockImplementation((draw) => {
      draw(0);
      return 0;
    });
    const keep = jest
      .fn<(kept: Kept) => Promise<unknown>>()
      .mockRejectedValueOnce(new ApiFailure('badRequest', 'Look at the fields.', { 'layer.name': 'There is one.' }))
      .mockRejectedValueOnce(new ApiFailure('offline', 'The server does not answer.'));
    renderAt('/', <Form keep={keep} start={{ name: 'clear', film: '28' }} />);
    await press('Keep it');
    expect(await screen.findByText('There is one.')).toBeTruthy();
    await waitFor(() => expect(document.activeElement).toBe(name()));
    await press('Keep it');
    await waitFor(() => expect(screen.getByTestId('failure').textContent).toBe('The server does not answer.'));
    expect(name().getAttribute('aria-invalid')).toBe('false');
    frame.mockRestore();
  });

  it('what is wrong with the whole of it is said below, and nothing is kept', async () => {
    const keep = jest.fn<(kept: Kept) => Promise<unknown>>(nothing);
    renderAt('/', <Form keep={keep} start={{ name: 'twice', film: '28' }} />);
    await press('Keep it');
    await waitFor(() => expect(screen.getByTestId('failure').textContent).toBe('There can be one of these only.'));
    expect(keep).not.toHaveBeenCalled();
    await hand.type(name(), ' over');
    await waitFor(() => expect(screen.getByTestId('failure').textContent).toBe(''));
  });

  it('what is refused at a field that is not there is said below: nothing is refused without a word', async () => {
    const keep = jest
      .fn<(kept: Kept) => Promise<unknown>>()
      .mockRejectedValueOnce(
        new ApiFailure('badRequest', 'Look at the fields.', { areas: 'An area is masked on this one.' }),
      )
      .mockRejectedValueOnce(new ApiFailure('badRequest', 'Look at the fields.', { '': 'There is one like it.' }));
    renderAt('/', <Form keep={keep} start={{ name: 'clear', film: '28' }} />);
    await press('Keep it');
    await waitFor(() => expect(screen.getByTestId('failure').textContent).toBe('An area is masked on this one.'));
    await press('Keep it');
    await waitFor(() => expect(screen.getByTestId('failure').textContent).toBe('There is one like it.'));
  });

  it('is busy while it is kept: a second press does nothing', async () => {
    let done = () => {};
    const keep = jest.fn<(kept: Kept) => Promise<void>>(() => new Promise((ok) => (done = ok)));
    renderAt('/', <Form keep={keep} start={{ name: 'clear', film: '28' }} />);
    await press('Keep it');
    await waitFor(() => expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' }).disabled).toBe(true));
    await press('Keep it');
    expect(keep).toHaveBeenCalledTimes(1);
    await act(async () => done());
    await waitFor(() =>
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' }).disabled).toBe(false),
    );
  });

  it('says what else is refused, and is filled anew at once', async () => {
    renderAt('/', <Form keep={nothing} />);
    await press('Remove');
    await waitFor(() => expect(screen.getByTestId('failure').textContent).toBe('It is gone.'));
    await press('Keep it');
    expect(await screen.findByText('Name it.')).toBeTruthy();
    await press('As usual');
    expect([name().value, film().value]).toEqual(['clear', '28']);
    await waitFor(() => expect(screen.queryByText('Name it.')).toBeNull());
  });
});

describe('a form that follows what it is of', () => {
  const both = () => [name().value, film().value, screen.getByTestId('changed').textContent];

  function Owner({ keep = nothing }: { keep?: (kept: Kept) => Promise<unknown> }) {
    const [own, setOwn] = useState<Typed>({ name: 'clear', film: '28' });
    return (
      <>
        <Following
          own={own}
          keep={async (kept) => {
            await keep(kept);
            setOwn({ name: kept.name, film: String(kept.film) });
          }}
        />
        <button onClick={() => setOwn({ name: 'primer', film: '40' })}>Elsewhere</button>
      </>
    );
  }

  it('where nothing is typed, what was changed elsewhere stands in it', async () => {
    renderAt('/', <Owner />);
    expect(both()).toEqual(['clear', '28', 'as it is']);
    await press('Elsewhere');
    expect(both()).toEqual(['primer', '40', 'as it is']);
  });

  it('what is typed stays when something is changed elsewhere', async () => {
    renderAt('/', <Owner />);
    await hand.type(name(), ' coat');
    await press('Elsewhere');
    expect(both()).toEqual(['clear coat', '28', 'changed']);
  });

  it('what is kept stands as it is kept; what is typed while it is being kept stays', async () => {
    let done = () => {};
    renderAt('/', <Owner keep={() => new Promise<void>((ok) => (done = ok))} />);
    await hand.type(name(), ' coat  ');
    expect(both()).toEqual(['clear coat  ', '28', 'changed']);
    await press('Keep it');
    await act(async () => done());
    await waitFor(() => expect(both()).toEqual(['clear coat', '28', 'as it is']));
    await hand.type(name(), ' two');
    await press('Keep it');
    await hand.type(film(), '0');
    await act(async () => done());
    expect(both()).toEqual(['clear coat two', '280', 'changed']);
  });

  it('is kept in another way after the same check', async () => {
    const keep = jest.fn<(kept: Kept) => Promise<unknown>>(nothing);
    renderAt('/', <Owner keep={keep} />);
    await hand.clear(film());
    await press('Keep it twice as thick');
    expect(await screen.findByText('The film must be a number.')).toBeTruthy();
    await waitFor(() => expect(document.activeElement).toBe(film()));
    await hand.type(film(), '30');
    await press('Keep it twice as thick');
    await waitFor(() => expect(keep).toHaveBeenCalledWith({ name: 'clear', film: 60 }));
  });
});
