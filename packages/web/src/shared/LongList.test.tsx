import { describe, expect, it, jest } from '@jest/globals';
import { fireEvent, render, screen } from '@testing-library/react';
import { LongList } from './LongList';

const list = (ids: readonly string[], onLook?: (from: number, to: number) => void) => (
  <LongList
    label="Rows"
    total={ids.length}
    height={40}
    keyOf={(at) => ids[at]!}
    {...(onLook ? { onLook } : {})}
    draw={(at) => (
      <>
        <button>open {ids[at]}</button>
        <input aria-label={ids[at]} />
      </>
    )}
  />
);
const value = (label: string) => screen.getByLabelText<HTMLInputElement>(label).value;

describe('a list of rows', () => {
  it('what is open in a row stays with what stands there when the list is sorted anew', () => {
    const { rerender } = render(list(['a', 'b', 'c']));
    fireEvent.change(screen.getByLabelText('b'), { target: { value: 'half typed' } });
    rerender(list(['b', 'a']));
    expect([value('a'), value('b')]).toEqual(['', 'half typed']);
  });

  it('is walked by arrow keys, page keys, Home and End, and stays at its ends', () => {
    render(list(Array.from({ length: 12 }, (_, i) => String(i))));
    const press = (key: string) => fireEvent.keyDown(document.activeElement!, { key });
    const at = () => document.activeElement!.textContent;
    screen.getByRole('button', { name: 'open 0' }).focus();
    for (const [key, row] of [
      ...[
        ['ArrowDown', 1],
        ['ArrowUp', 0],
        ['ArrowUp', 0],
        ['PageDown', 8],
        ['PageDown', 11],
      ],
      ...[
        ['Home', 0],
        ['End', 11],
        ['ArrowDown', 11],
        ['PageUp', 3],
      ],
    ] as const) {
      press(String(key));
      expect(at()).toBe(`open ${row}`);
    }
    // In a field the keys are the field's.
    screen.getByLabelText('3').focus();
    press('End');
    expect(document.activeElement).toBe(screen.getByLabelText('3'));
  });

  it('says which rows are seen: all of a short one', () => {
    const look = jest.fn();
    render(list(['a', 'b', 'c'], look));
    expect(look).toHaveBeenLastCalledWith(0, 2);
  });
});
