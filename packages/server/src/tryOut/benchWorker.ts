import { answerThread } from '../answerThread';
import { createBench, type BenchAnswer, type BenchAsk } from './bench';

answerThread<BenchAsk, BenchAnswer>(createBench());
