import { parentPort } from 'node:worker_threads';
import type { PdfAsked, PdfDrawn } from './pdf';
import { render } from './render';

parentPort!.on('message', ({ id, document }: PdfAsked) => {
  const answer = (drawn: PdfDrawn) => parentPort!.postMessage(drawn);
  render(document).then(
    (bytes) => answer({ id, bytes }),
    (error: unknown) => answer({ id, fault: error instanceof Error ? error.message : String(error) }),
  );
});
