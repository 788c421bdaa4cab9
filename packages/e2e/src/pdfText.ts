import { extractText, getDocumentProxy } from 'unpdf';

/** The text of a PDF, its pages one after the other. */
export async function pdfText(bytes: Uint8Array): Promise<string> {
  return (await extractText(await getDocumentProxy(new Uint8Array(bytes)), { mergePages: true })).text;
}
