import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { importReadings, toCgats, toColourXml, toReadingsCsv } from '@steady-gleam/core/formats';
import { appendFileSync, mkdtempSync, renameSync, rmSync, unlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { watchInbox, type CameIn, type Inbox, type Waits } from './watch';

const WAITS: Waits = { every: 40, rests: 120, maybe: 700, half: 1_200, tells: 2_000 };
let folder: string;
let inbox: Inbox;
let came: CameIn[];
const faults: unknown[] = [];

const readings = (seed: number, spots = 3) =>
  Array.from({ length: spots }, (_, s) =>
    [15, 25, 45, 75, 110].map((aspecular) => ({
      ...{ spot: String(s + 1), incidence: 45, aspecular },
      ...{ l: (seed % 90) + aspecular / 100, a: (seed % 7) - s, b: s - 3 },
    })),
  ).flat();
const WRITE = [toCgats, toColourXml, toReadingsCsv] as const;
const NAMED = ['txt', 'cxf', 'csv'] as const;
const until = async (is: () => boolean, ms = 8_000): Promise<void> => {
  const end = performance.now() + ms;
  while (!is()) {
    if (performance.now() > end) throw new Error('It never came to that.');
    await after(20);
  }
};
const put = (name: string, text: string | Buffer) => writeFileSync(join(folder, name), text);

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'inbox-'));
  came = [];
  faults.length = 0;
  inbox = watchInbox(
    folder,
    async (file) => void came.push(file),
    (e) => faults.push(e),
    WAITS,
  );
});
afterEach(async () => {
  await inbox.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('the watched folder', () => {
  it('looks again at a file that is written while it is being taken', async () => {
    await inbox.close();
    let slow = true;
    inbox = watchInbox(
      folder,
      async (file) => {
        if (slow) {
          slow = false;
          put('both.txt', toCgats(readings(12)));
          await after(400);
        }
        came.push(file);
      },
      (e) => faults.push(e),
      WAITS,
    );
    put('both.txt', toCgats(readings(11)));
    await until(() => came.length === 2, 20_000);
    expect(came[1]!.text).toBe(toCgats(readings(12)));
  }, 30_000);

  it('takes five hundred files written in bursts and in pieces: each once, none lost, none half', async () => {
    const texts = new Map<string, string>();
    for (let i = 0; i < 500; i++) {
      const kind = i % 3;
      texts.set(`reading-${i}.${NAMED[kind]!}`, WRITE[kind]!(readings(i)));
    }
    const all = [...texts];
    for (let from = 0; from < all.length; from += 50) {
      const burst = all.slice(from, from + 50);
      // Half of a burst is there at once, the other half comes in two pieces.
      for (const [i, [name, text]] of burst.entries())
        put(name, i % 2 ? text.slice(0, Math.floor(text.length / 2)) : text);
      await after(60);
      for (const [i, [name, text]] of burst.entries())
        if (i % 2) appendFileSync(join(folder, name), text.slice(Math.floor(text.length / 2)));
    }
    await until(() => came.length >= 500, 60_000);
    await after(1_500);
    expect(came).toHaveLength(500);
    expect(new Map(came.map((c) => [c.name, c.text]))).toEqual(texts);
    for (const file of came) {
      const read = importReadings(file.text, {});
      expect(read.ok === true && read.readings).toHaveLength(15);
    }
    expect(faults).toEqual([]);
  }, 90_000);

  it('waits for a file that is written slowly, and takes one that was moved there whole at once', async () => {
    const text = toCgats(readings(3));
    put('slow.txt', text.slice(0, 40));
    for (let at = 40; at < text.length; at += 120) {
      await after(150);
      expect(came).toEqual([]);
      appendFileSync(join(folder, 'slow.txt'), text.slice(at, at + 120));
    }
    await until(() => came.length === 1);
    expect(came[0]!.text).toBe(text);
    writeFileSync(join(tmpdir(), 'moved-reading.xml'), toColourXml(readings(4)));
    renameSync(join(tmpdir(), 'moved-reading.xml'), join(folder, 'moved.xml'));
    await until(() => came.length === 2);
    expect(came[1]!.name).toBe('moved.xml');
  }, 20_000);

  it('tells of a file that never comes to its end, and takes nothing of it', async () => {
    put('half.cxf', toColourXml(readings(5)).slice(0, 200));
    await until(() => inbox.unfinished().length === 1);
    expect(inbox.unfinished()[0]!.said).toContain('is not there to its end');
    expect(came).toEqual([]);
    unlinkSync(join(folder, 'half.cxf'));
    await until(() => inbox.unfinished().length === 0);
  }, 20_000);

  it('takes the same name written again as another file, a table without a last line’s end a little later', async () => {
    put('again.csv', toReadingsCsv(readings(6)));
    await until(() => came.length === 1);
    put('again.csv', toReadingsCsv(readings(7)).trimEnd());
    await until(() => came.length === 2);
    expect(came[1]!.hash).not.toBe(came[0]!.hash);
  }, 20_000);

  it.each([
    ['bytes.csv', Buffer.from([1, 0, 2, 0, 255, 254, 0]), 'not text'],
    ['large.csv', Buffer.alloc(1_100_000, 'a'), 'over 1 MB'],
  ])('says of %s what is wrong with it', async (name, bytes, said) => {
    put(name, bytes);
    await until(() => came.length === 1);
    expect(came[0]!.fault).toContain(said);
  });

  it('leaves other files alone, and tries again what could not be kept', async () => {
    await inbox.close();
    let tries = 0;
    inbox = watchInbox(
      folder,
      async (file) => {
        if (++tries < 3) throw new Error('The database is away.');
        came.push(file);
      },
      (e) => faults.push(e),
      WAITS,
    );
    put('notes.doc', 'nothing');
    put('.hidden.csv', toReadingsCsv(readings(1)));
    put('kept.cgats', toCgats(readings(8)));
    await until(() => came.length === 1);
    await after(400);
    expect(came.map((c) => c.name)).toEqual(['kept.cgats']);
    expect(faults).toHaveLength(2);
  });
});
