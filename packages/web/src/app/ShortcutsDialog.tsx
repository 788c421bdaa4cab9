import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';

const SHORTCUTS: readonly { readonly where: string; readonly keys: readonly (readonly [string, string])[] }[] = [
  {
    where: 'Match map',
    keys: [
      ['arrows', 'move the probe; Home and End to the first and last coat'],
      ['[  and  ]', 'angle toward the face, toward the flop'],
      ['L', 'next light'],
      ['arrows on a slider', 'strength in steps of 0.05'],
    ],
  },
  {
    where: 'Layers',
    keys: [
      ['space on a handle', 'lift a layer, arrows move it, space lays it down'],
      ['Ctrl Z,  Ctrl Y', 'undo, redo'],
    ],
  },
  {
    where: 'Spray plan',
    keys: [['space on a handle', 'lift a piece, arrows move it in the order, space lays it down']],
  },
  {
    where: 'Everywhere',
    keys: [
      ['?', 'this list'],
      ['Tab', 'next control'],
    ],
  },
];

/** The list of keys. */
export function ShortcutsDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="shortcuts-title">
      <DialogTitle id="shortcuts-title" variant="h2">
        Keys
      </DialogTitle>
      <DialogContent>
        {SHORTCUTS.map((group) => (
          <section key={group.where} aria-label={group.where}>
            <h3 style={{ margin: '10px 0 4px' }}>{group.where}</h3>
            <dl style={{ display: 'grid', gridTemplateColumns: '170px 1fr', gap: '6px 14px', margin: 0 }}>
              {group.keys.map(([key, does]) => (
                <div key={key} style={{ display: 'contents' }}>
                  <dt style={{ fontWeight: 640 }}>{key}</dt>
                  <dd style={{ margin: 0 }}>{does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={onClose}>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}
