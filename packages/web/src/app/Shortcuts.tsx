import { lazy, Suspense, useEffect } from 'react';

const Dialog = lazy(async () => ({ default: (await import('./ShortcutsDialog')).ShortcutsDialog }));

/** The list of keys, opened by "?" or from the rail. */
export function Shortcuts({ open, onOpen }: { open: boolean; onOpen: (open: boolean) => void }) {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      if (e.key === '?' && !typing) onOpen(true);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [onOpen]);
  return open ? (
    <Suspense>
      <Dialog onClose={() => onOpen(false)} />
    </Suspense>
  ) : null;
}
