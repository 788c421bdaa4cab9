declare const __BUILD__: string | undefined;

/** Which build this page is of; empty where it was not built: in tests, and while it is developed. */
export const OWN_BUILD: string = typeof __BUILD__ === 'undefined' ? '' : __BUILD__;
