/** Lets a stop, or another question that waits, come in between the steps of a long answer. */
export const letOthersIn = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));
