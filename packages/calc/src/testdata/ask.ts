import { answer } from '../answer';

/** What the calculator answers to a request. */
export const ask = (request: unknown) => answer(JSON.stringify(request));

/** The result of a request. @throws where it is refused */
export const result = <T>(request: unknown): T => {
  const reply = ask(request);
  if (!reply.ok) throw new Error(JSON.stringify(reply.error));
  return reply.result as T;
};
