import { Box } from '@mui/material';
import { Field } from '../../ui/Field';
import { MeasureField } from '../../ui/MeasureField';
import { useUnits } from '../../shared/units';
import type { BatchPanelProps } from './batchProps';

/** Product, ratio, hardener, reducer, weather and cup of a batch. */
export function BatchFields(props: BatchPanelProps) {
  const { group, settings, onSettings, mixing, shelf } = props;
  const { product, pours, need, faults } = props.work;
  const units = useUnits();
  const additives = (role: 'hardener' | 'reducer') => {
    if (!pours.pours.some((p) => p.role === role)) return null;
    const own = (product?.additives ?? []).filter((a) => a.role === role);
    const now_ = pours.pours.find((p) => p.role === role);
    return (
      <Field
        label={role === 'hardener' ? 'Hardener' : 'Reducer'}
        select
        value={settings[role]}
        onChange={(e) => onSettings({ [role]: e.target.value })}
        hint={now_?.advice ? now_.advice.why : own.length ? '' : `no ${role} stands with this product`}
      >
        <option value="">{now_?.advice && !settings[role] ? now_.name : 'as advised'}</option>
        {own.map((a) => (
          <option key={a.name} value={a.name}>
            {a.name}, {units.range('temperature', a.fromC, a.toC)}
          </option>
        ))}
      </Field>
    );
  };
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(250px, 1fr))',
        columnGap: 2,
        rowGap: 1,
        mt: 1.5,
        maxWidth: 820,
      }}
    >
      <Field
        label="Product"
        select
        value={mixing.products[group.id] ?? ''}
        onChange={(e) => {
          const { value } = e.target;
          props.onMixing((now) => {
            const others = Object.entries(now.products).filter(([layer]) => layer !== group.id);
            return { products: Object.fromEntries(value ? [...others, [group.id, value]] : others) };
          });
        }}
        hint={product ? '' : `no ${group.productKind} on the shelf; common figures are used`}
      >
        <option value="">{product && !mixing.products[group.id] ? product.name : 'first of its kind'}</option>
        {shelf.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </Field>
      <Field
        label="Ratio, as on the sheet"
        value={settings.ratio || product?.ratio || ''}
        onChange={(e) => onSettings({ ratio: e.target.value })}
        error={pours.ratioFault ?? undefined}
      />
      {additives('hardener')}
      {additives('reducer')}
      {props.weatherFields}
      <MeasureField
        measure="volume"
        label="Mix instead"
        value={settings.amount}
        onValue={(amount) => onSettings({ amount })}
        error={faults['amount']}
        hint={`needed: ${Math.round(need.ml)} ml`}
      />
      <MeasureField
        measure="volume"
        label="Cup"
        value={settings.cup}
        onValue={(cup) => onSettings({ cup })}
        error={faults['cup']}
        hint="empty: the smallest that holds it"
      />
    </Box>
  );
}

/** Lot numbers of what was poured, and a note. */
export function LotsAndNote(props: Pick<BatchPanelProps, 'group' | 'work' | 'notes' | 'onNotes'>) {
  const { group, notes } = props;
  const { pours } = props.work;
  return (
    <Box component="details" sx={{ mt: 1.5, maxWidth: 820 }}>
      <Box component="summary" sx={{ minHeight: 44, py: 1.25, cursor: 'pointer', typography: 'h3' }}>
        Lot numbers and a note
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(182px, 1fr))', gap: 1.5 }}>
        {pours.pours.map((p) => (
          <Field
            key={p.name}
            label={`Lot, ${p.name}`}
            value={notes.lots[`${group.id}/${p.name}`] ?? ''}
            onChange={(e) =>
              props.onNotes({ lots: { ...notes.lots, [`${group.id}/${p.name}`]: e.target.value.slice(0, 40) } })
            }
          />
        ))}
        <Field
          label="Note"
          value={notes.note}
          onChange={(e) => props.onNotes({ note: e.target.value.slice(0, 400) })}
        />
      </Box>
    </Box>
  );
}
