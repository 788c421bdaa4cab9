import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

const fonts = join(dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')), 'fonts/Roboto');
pdfmake.setFonts({
  Roboto: {
    normal: join(fonts, 'Roboto-Regular.ttf'),
    bold: join(fonts, 'Roboto-Medium.ttf'),
    italics: join(fonts, 'Roboto-Italic.ttf'),
    bolditalics: join(fonts, 'Roboto-MediumItalic.ttf'),
  },
});
// Nothing but its own fonts is read, and nothing is fetched.
pdfmake.setLocalAccessPolicy((path: string) => path.startsWith(fonts));
pdfmake.setUrlAccessPolicy(() => false);

/** Points in a millimetre. */
export const MM = 72 / 25.4;

/** A document as PDF bytes, in the face that ships with it. */
export async function toPdf(document: TDocumentDefinitions): Promise<Buffer> {
  const set = { ...document, defaultStyle: { font: 'Roboto', ...document.defaultStyle } };
  return Buffer.from(await pdfmake.createPdf(set).getBuffer());
}
