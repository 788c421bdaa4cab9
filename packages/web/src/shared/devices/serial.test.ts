import { describe, expect, it } from '@jest/globals';
import { LINE_FORMS, weigher } from '@steady-gleam/core/devices';
import { setTimeout as after } from 'node:timers/promises';
import { readLines, sayPort, serialOf, type SerialPortLike } from './serial';
import { sayOffered } from './useInbox';

/** A port whose device sends what it is told to. */
function fakePort(refuses?: Error) {
  let out: ReadableStreamDefaultController<Uint8Array> | null = null;
  let closed = 0;
  const port: SerialPortLike = {
    readable: new ReadableStream<Uint8Array>({ start: (c) => void (out = c) }),
    open: async () => {
      if (refuses) throw refuses;
    },
    close: async () => void closed++,
  };
  const bytes = new TextEncoder();
  return {
    port,
    push: (text: string) => out!.enqueue(bytes.encode(text)),
    pull: () => out!.error(Object.assign(new Error('lost'), { name: 'NetworkError' })),
    end: () => out!.close(),
    closed: () => closed,
  };
}

function listen(fake: ReturnType<typeof fakePort>) {
  const lines: string[] = [];
  const ended: string[] = [];
  const leave = readLines(
    fake.port,
    9600,
    (line) => lines.push(line),
    (said) => ended.push(said),
  );
  return { lines, ended, leave };
}

describe('a serial port', () => {
  it('gives whole lines, however they come', async () => {
    const fake = fakePort();
    const { lines, ended, leave } = listen(fake);
    for (const part of ['ST +  1', '2.3 g\r', '\nUS + 13', '.0 g\r\n', '\r\nST'] as const) {
      fake.push(part);
      await after(2);
    }
    expect(lines).toEqual(['ST +  12.3 g', 'US + 13.0 g']);
    leave();
    await after(5);
    expect(ended).toEqual([]);
    expect(fake.closed()).toBe(1);
  });
  it('whose cable is pulled says so once, and is closed', async () => {
    const fake = fakePort();
    const { lines, ended } = listen(fake);
    fake.push('ST + 5.0 g\n');
    await after(5);
    fake.pull();
    await after(5);
    expect(lines).toEqual(['ST + 5.0 g']);
    expect(ended).toEqual(['The cable was pulled, or the device is off.']);
    expect(fake.closed()).toBe(1);
  });
  it('whose device ends by itself says so too', async () => {
    const fake = fakePort();
    const { ended } = listen(fake);
    await after(2);
    fake.end();
    await after(5);
    expect(ended).toHaveLength(1);
  });
  it('that is in use elsewhere is named', async () => {
    const { ended } = listen(fakePort(Object.assign(new Error('open'), { name: 'InvalidStateError' })));
    await after(5);
    expect(ended[0]).toContain('in use');
    expect(sayPort(new Error('odd'))).toContain('odd');
  });
  it('is there only where the browser has one', () => {
    expect(serialOf({})).toBeNull();
    expect(serialOf({ serial: { getPorts: 1 } })).not.toBeNull();
  });
  it('of a scale becomes weights in the order they came', async () => {
    const fake = fakePort();
    const read = weigher(LINE_FORMS[0]!);
    const grams: number[] = [];
    readLines(
      fake.port,
      9600,
      (line, at) => {
        const said = read(line, at);
        if ('grams' in said) grams.push(said.grams);
      },
      () => undefined,
    );
    for (let i = 0; i < 50; i++) fake.push(`US + ${(i * 1.7).toFixed(1)} g\r\n`);
    await after(20);
    expect(grams).toEqual(Array.from({ length: 50 }, (_, i) => Number((i * 1.7).toFixed(1))));
  });
});

describe('a file that came in', () => {
  const cameAt = '2026-11-28T09:00:00.000Z';
  const file = { id: 'f', name: 'board.txt', cameAt, spots: 3, angles: 5, fault: '' };
  const at = (seconds: number) => Date.parse(cameAt) + 1000 * seconds;
  it.each([
    [20, '3 spots at 5 angles came in 20 s ago: board.txt'],
    [600, '3 spots at 5 angles came in 10 min ago: board.txt'],
    [7300, '3 spots at 5 angles came in 2 h ago: board.txt'],
    // A clock that was set back says nothing below nothing.
    [-50, '3 spots at 5 angles came in 0 s ago: board.txt'],
  ])('is said %p s later', (seconds, said) => expect(sayOffered(file, at(seconds))).toBe(said));
  it('that has to be looked into is a file', () =>
    expect(sayOffered({ ...file, spots: null, angles: null }, at(5))).toBe('A file came in 5 s ago: board.txt'));
});
