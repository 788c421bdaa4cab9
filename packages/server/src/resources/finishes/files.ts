import {
  answersSchema,
  FINISH_FILES_AT_ONCE,
  finishFilesApi,
  type FileAnswers,
  type LookedIntoFile,
} from '@steady-gleam/contracts';
import type { Express, Request } from 'express';
import { openFiles, lookInto, type NamedFile, type Shelf } from '../../finishFile/open';
import { fileNameOf, textsOf, zipped } from '../../finishFile/pack';
import { readFinishFile } from '../../finishFile/read';
import { finishFile } from '../../finishFile/write';
import { ApiError } from '../../errors';
import { bytesOf, takesBytes } from '../../http/files';
import { idOf } from '../../http/route';
import type { Repos } from '../repos';
import { refuseTryOut } from './repo';

type Needed = Pick<Repos, 'finishes' | 'photos' | 'cards' | 'shelf' | 'inOne'>;

/** Finishes as files: saved, looked into, opened. */
export function routeFinishFiles(app: Express, { finishes, photos, cards, shelf, inOne }: Needed): void {
  const here = async (): Promise<Shelf> => ({ ...(await shelf()), finishIds: await finishes.ids() });
  const textOf = async (id: string, on: Pick<Shelf, 'own' | 'guns'>): Promise<{ name: string; text: string }> => {
    const detail = await finishes.read(id);
    refuseTryOut(detail.finish);
    const file = await finishFile(detail, {
      ...{ own: on.own, guns: on.guns, hands: await cards.handsOf(id), now: new Date() },
      photo: async (photoId) => (await photos.read(photoId)).bytes,
    });
    return { name: detail.finish.name, text: `${JSON.stringify(file, null, 2)}\n` };
  };
  app.get(finishFilesApi.save.path, async (req, res) => {
    const { name, text } = await textOf(await idOf(req), await shelf());
    res.set({
      'Content-Type': 'application/json; charset=utf-8',
      'Content-Disposition': `attachment; filename="${fileNameOf(name)}"`,
    });
    res.send(text);
  });
  app.get(finishFilesApi.saveZip.path, async (req, res) => {
    const asked = typeof req.query['ids'] === 'string' && req.query['ids'] ? req.query['ids'].split(',') : null;
    const on = await here();
    const ids = asked ?? [...on.finishIds];
    if (ids.some((id) => !on.finishIds.has(id))) throw new ApiError('notFound');
    if (ids.length > FINISH_FILES_AT_ONCE)
      throw new ApiError('badRequest', {
        ids: `${FINISH_FILES_AT_ONCE} finishes fit in one zip; the bank has ${ids.length}. Name those that are wanted.`,
      });
    const files = [];
    for (const id of ids) files.push(await textOf(id, on));
    const bytes = await zipped(files);
    res.set({ 'Content-Type': 'application/zip', 'Content-Disposition': 'attachment; filename="finishes.zip"' });
    res.send(Buffer.from(bytes));
  });

  const filesOf = async (req: Request): Promise<{ files: NamedFile[]; refused: LookedIntoFile['refused'] }> => {
    const name = typeof req.query['name'] === 'string' ? req.query['name'].slice(0, 200) : 'file';
    const files: NamedFile[] = [];
    const refused: LookedIntoFile['refused'] = [];
    for (const { name: called, text } of await textsOf(name, bytesOf(req))) {
      const read = readFinishFile(text);
      if (!read.ok) refused.push({ file: called, faults: read.faults.map((f) => ({ ...f })) });
      else if (files.some((f) => f.read.file.finish.id === read.file.finish.id))
        refused.push({
          file: called,
          faults: [{ field: 'finish.id', message: 'This finish stands in the zip twice.' }],
        });
      else files.push({ name: called, read });
    }
    return { files, refused };
  };
  app.post(finishFilesApi.look.path, takesBytes(finishFilesApi.look), async (req, res) => {
    const { files, refused } = await filesOf(req);
    res.json(lookInto(files, refused, await here()));
  });
  app.post(finishFilesApi.open.path, takesBytes(finishFilesApi.open), async (req, res) => {
    const { files, refused } = await filesOf(req);
    // All of it or nothing: what can't be read is not left out without a word.
    if (refused.length)
      throw new ApiError(
        'badRequest',
        Object.fromEntries(refused.flatMap((r) => r.faults.map((f) => [`${r.file}: ${f.field}`, f.message]))),
      );
    const answers = await answersIn(req.query['answers']);
    // Read before, since what is stored is stored in one.
    const now = await here();
    const opened = await inOne((tx) => openFiles(tx, files, now, answers));
    res.status(201).json({ finishes: opened });
  });
}

async function answersIn(asked: unknown): Promise<FileAnswers> {
  let raw: unknown = {};
  try {
    if (typeof asked === 'string') raw = JSON.parse(asked);
  } catch {
    throw new ApiError('badRequest', { answers: 'The answers can’t be read as JSON.' });
  }
  return await answersSchema.validate(raw);
}
