import { createInterface } from 'node:readline';
import { answer } from './answer';

let allOk = true;
for await (const line of createInterface({ input: process.stdin, crlfDelay: Infinity })) {
  if (line.trim() === '') continue;
  const reply = answer(line);
  allOk &&= reply.ok;
  // A full pipe is waited for, so that a long batch does not pile up in memory.
  if (!process.stdout.write(`${JSON.stringify(reply)}\n`))
    await new Promise((done) => process.stdout.once('drain', done));
}
process.exitCode = allOk ? 0 : 1;
