/** Whether a file of readings that is being written is there to its end. `maybe`: nothing in it says where it ends. */
export type Whole = 'whole' | 'half' | 'maybe';

/** Tells by what its form ends with: an XML by its outermost element, a CGATS by its end of data, a table by its last line's end. */
export function wholeness(text: string): Whole {
  const trimmed = text.trim();
  if (!trimmed) return 'half';
  if (trimmed.startsWith('<')) {
    const inside = trimmed.replace(/<\?[\s\S]*?\?>|<!--[\s\S]*?-->|<![^>]*>/g, '');
    const root = /<([A-Za-z_][\w:.-]*)/.exec(inside)?.[1];
    return root !== undefined && trimmed.endsWith(`</${root}>`) ? 'whole' : 'half';
  }
  if (/^(CGATS|IT8|ISO)/.test(trimmed) || /^BEGIN_DATA\s*$/m.test(trimmed) || /^NUMBER_OF_SETS/m.test(trimmed))
    return /^BEGIN_DATA\s*$[\s\S]*^END_DATA\s*$/m.test(trimmed) ? 'whole' : 'half';
  return /[\r\n]$/.test(text) ? 'maybe' : 'half';
}
