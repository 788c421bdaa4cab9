import { describe, expect, it } from '@jest/globals';
import { DamagedDataError, ofFileSystem, ofServer, reasonOf, reasonOfEngine, StartError } from './startFaults';

const coded = (code: string, message = 'x') => Object.assign(new Error(message), { code });

describe('why the program can’t start', () => {
  it.each([
    ['ENOSPC', /no room left on the disk of \/data/],
    ['EACCES', /can’t be written to/],
    ['EROFS', /can’t be written to/],
    ['ENOTDIR', /is a file, not a folder/],
    ['EIO', /answers with errors/],
  ])('of the file system’s %s names the folder and a way out', (code, said) => {
    const fault = ofFileSystem(coded(code), '/data')!;
    expect(fault).toBeInstanceOf(StartError);
    expect(fault.message).toMatch(said);
    expect(fault.message).toContain('/data');
    expect(fault.message).toMatch(/start again|STEADY_GLEAM_DATA=/);
    // Also where it is told inside of something else, or by the embedded engine’s own numbers.
    expect(ofFileSystem(new Error('outer', { cause: coded(code) }), '/data')!.message).toBe(fault.message);
  });

  it('is known by the engine’s numbers as by its names', () => {
    const engine = (errno: number) => Object.assign(new Error('FS error'), { name: 'ErrnoError', errno });
    expect(ofFileSystem(engine(51), '/data')!.message).toMatch(/no room/);
    expect(ofFileSystem(engine(2), '/data')!.message).toMatch(/can’t be written to/);
    expect(ofFileSystem(engine(999), '/data')).toBeNull();
  });

  it('is no fault of the file system for anything else', () => {
    for (const other of [new Error('x'), coded('ECONNREFUSED'), null, undefined, 'text', 7])
      expect(ofFileSystem(other, '/data')).toBeNull();
  });

  it.each([
    ['28P01', /does not let this user in/],
    ['3D000', /no such database/],
    ['53300', /no connection left/],
    ['42501', /may not make tables/],
    ['55P03', /Another program holds/],
  ])('of a database server’s %s says what to do', (code, said) => {
    const fault = ofServer(coded(code), 'db.pier:5432/shop')!;
    expect(fault.message).toMatch(said);
    expect(fault.message).toContain('db.pier:5432/shop');
  });

  it('is the first line of what went wrong, innermost, as a sentence', () => {
    expect(reasonOf(new Error('no such table: jobs\n  at x'))).toBe('no such table: jobs.');
    expect(reasonOf(new Error('Failed query', { cause: new Error('relation is gone!') }))).toBe('relation is gone!');
    expect(reasonOf('just text')).toBe('just text.');
    expect(reasonOf(new Error(''))).toBe('no reason was given.');
    expect(reasonOf(new Error('y'.repeat(900))).length).toBeLessThan(170);
  });

  it('tells nothing of an engine that only says that it stopped', () => {
    for (const bare of ['Aborted()', 'PGlite failed to initialize properly', 'unreachable'])
      expect(reasonOfEngine(new Error(bare))).toBe('files of it are missing or damaged.');
    expect(reasonOfEngine(new Error('invalid page in block 3'))).toBe(
      'files of it are missing or damaged (invalid page in block 3).',
    );
  });

  it('of damaged data says where, and that nothing was thrown away', () => {
    const fault = new DamagedDataError('/data/database', 'files of it are missing.');
    expect(fault).toBeInstanceOf(StartError);
    expect(fault.message).toBe(
      'The data in /data/database can’t be opened: files of it are missing. Nothing of it was thrown away.',
    );
    expect(fault.where).toBe('/data/database');
  });
});
