import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { createThread } from '../thread';
import { render } from './render';

/** Points in a millimetre. */
export const MM = 72 / 25.4;

const THREAD = fileURLToPath(new URL('./pdfWorker.js', import.meta.url));
/** The built program draws in a thread of its own; from its source, as in tests, it draws where it is asked. */
const draw = existsSync(THREAD)
  ? createThread<TDocumentDefinitions, Uint8Array>(THREAD, {
      longestMs: 30_000,
      mostWaiting: 40,
      crowded: 'Many papers are being drawn just now. Try again in a moment.',
      tooLong: 'There is too much for one paper here.',
    })
  : render;

/** A document as PDF bytes. */
export const toPdf = async (document: TDocumentDefinitions): Promise<Buffer> => Buffer.from(await draw(document));
