/** Ends the server of the page tests. */
export default () => globalThis.stopPageServer?.();
