import { expose } from 'comlink';
import { createCompute } from './compute';

expose(createCompute());
