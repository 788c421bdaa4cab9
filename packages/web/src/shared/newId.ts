import { v4 } from 'uuid';

/**
 * A fresh id for anything that is entered. The only maker of ids in the browser: it also works where the page was opened by
 * plain http from another device, where the browser's own `randomUUID` is missing.
 */
export const newId = (): string => v4();
