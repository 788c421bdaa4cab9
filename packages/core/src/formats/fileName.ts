/** A file name of what something is called: letters and figures, joined by hyphens; empty where there are none. */
export function fileName(...parts: readonly string[]): string {
  return parts
    .join(' ')
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
}
