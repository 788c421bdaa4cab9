import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { answerThread } from '../answerThread';
import { render } from './render';

answerThread<TDocumentDefinitions, Uint8Array>(render);
