import { Box, Button, Typography, useTheme } from '@mui/material';
import { leftoverAsGround, type Need, whyNotOneBatch, type BatchPlan, type MixGroup } from '@steady-gleam/core/mixing';
import type { Product } from '@steady-gleam/core/products';
import type { ReactNode, CSSProperties } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import { tableStyles } from './tableStyles';

const ONE_BATCH = 'in one batch?';

/** A mix of the job, worked out. */
export interface WorkedGroup {
  readonly group: MixGroup;
  readonly product: Product | null;
  readonly solids: number;
  readonly need: Need;
  readonly plan: BatchPlan | null;
}

/** Everything the job takes: mixes, their amounts and whether one batch is enough, what a leftover saves, and the pieces. */
export function WholeJobPanel({
  all,
  area,
  transferMean,
  coatMinutes,
  lands,
  tabs,
  weatherFields,
  humidity,
  onHumidity,
  onHumidityDone,
  humidityFault,
  leftover,
  onLeftover,
  onShow,
}: {
  readonly all: readonly WorkedGroup[];
  readonly area: number;
  readonly transferMean: number;
  /** To spray a coat on everything. */
  readonly coatMinutes: number;
  /** What lands, in words. */
  readonly lands: string;
  readonly tabs: ReactNode;
  readonly weatherFields: ReactNode;
  readonly humidity: string;
  readonly onHumidity: (text: string) => void;
  readonly onHumidityDone: () => void;
  readonly humidityFault: string | undefined;
  readonly leftover: string;
  readonly onLeftover: (text: string) => void;
  readonly onShow: (groupId: string) => void;
}) {
  const { tones } = useTheme();
  const units = useUnits();
  const { cell, head } = tableStyles(tones.hairline);
  const total = all.reduce((sum, w) => sum + (w.plan?.ml ?? 0), 0);
  const cost = all.every((w) => w.plan && w.plan.cost !== null) ? all.reduce((s, w) => s + w.plan!.cost!, 0) : null;
  const split = all.filter(
    (w) =>
      w.plan &&
      whyNotOneBatch(w.plan.ml, w.group.coats, coatMinutes, w.plan.potMinutes, w.product?.flashMinutes ?? 12) !== null,
  );
  const ground = all.find((w) => w.group.kind === 'ground');
  const leftoverMl = numberIn(leftover);
  const saves =
    ground && leftoverMl > 0
      ? leftoverAsGround({
          leftoverMl,
          area: ground.group.areaM2,
          filmUm: ground.group.solidMl / ground.group.areaM2 / Math.max(0.5, ground.group.coats),
          leftoverSolids: ground.solids,
          groundSolids: ground.solids,
          transferEfficiency: transferMean,
        })
      : null;
  return (
    <Bench
      side={
        <>
          <Typography variant="h2">Booth and gun</Typography>
          {weatherFields}
          <Field
            label="Humidity, %"
            value={humidity}
            onChange={(e) => onHumidity(e.target.value)}
            onBlur={onHumidityDone}
            error={humidityFault}
            decimal
          />
          <Typography variant="body2">{lands}.</Typography>
          <Typography variant="h2" sx={{ mt: 1 }}>
            A leftover as ground
          </Typography>
          <MeasureField
            measure="volume"
            label="Of matching colour"
            value={leftover}
            onValue={onLeftover}
            error={leftover.trim() && !(leftoverMl > 0) ? 'More than zero.' : undefined}
          />
          {saves ? (
            <Typography>
              {saves.coats > 0
                ? `It gives ${countCoats(saves.coats)} of ground over everything and saves ${units.say('volume', saves.savesMl)} of ${ground!.group.name}.`
                : 'Too little for half a coat over everything; keep it for a small piece.'}
            </Typography>
          ) : null}
        </>
      }
    >
      <Answer
        why={`${lands}. The range is how well that is known. ${split.length ? `${split.map((w) => w.group.name).join(', ')}: not in one batch.` : 'Each comes out of one batch, so each is one colour.'}`}
      >
        {units.say('volume', total)} in {all.length} mixes for {units.say('area', area)}
        {cost === null ? '.' : `, material ${cost.toFixed(0)}.`}
      </Answer>
      {tabs}
      <Box sx={{ overflowX: 'auto' }}>
        <CupTable head={head} all={all} cell={cell} onShow={onShow} coatMinutes={coatMinutes} />
      </Box>
    </Bench>
  );
}

interface CupTableProps {
  readonly head: CSSProperties;
  readonly all: readonly WorkedGroup[];
  readonly cell: CSSProperties;
  readonly onShow: (groupId: string) => void;
  readonly coatMinutes: number;
}

/** Every cup of the job, a row each. */
function CupTable({ head, all, cell, onShow, coatMinutes }: CupTableProps) {
  const wide = useWide();
  const units = useUnits();
  return (
    <table aria-label="Whole job" style={{ borderCollapse: 'collapse', width: '100%', fontSize: 15 }}>
      <thead>
        <tr>
          {['', 'coats', ...(wide ? ['dry film'] : []), 'needed', 'mix', 'material', ONE_BATCH].map((h) => (
            <th key={h} scope="col" style={{ ...head, textAlign: h === '' || h === ONE_BATCH ? 'left' : 'right' }}>
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {all.map((w) => (
          <tr key={w.group.id}>
            <td style={{ ...cell, textAlign: 'left', fontFamily: 'inherit', padding: '6px 0', whiteSpace: 'normal' }}>
              <Button
                variant="text"
                color="inherit"
                sx={{ px: 0.5, justifyContent: 'flex-start', textDecoration: 'underline' }}
                onClick={() => onShow(w.group.id)}
              >
                {w.group.name}
              </Button>
              <Typography variant="body2" sx={{ color: 'text.secondary', pl: 0.5 }}>
                {w.product?.name ?? `no ${w.group.productKind} on the shelf yet`}
              </Typography>
            </td>
            <td style={cell}>{sayCoats(w.group.coats)}</td>
            {wide ? <td style={cell}>{units.say('film', w.group.solidMl / w.group.areaM2)}</td> : null}
            <td style={cell}>{units.range('volume', w.need.low, w.need.high)}</td>
            <td style={{ ...cell, fontWeight: 700 }}>{w.plan ? units.say('volume', w.plan.ml) : '–'}</td>
            <td style={cell}>{w.plan && w.plan.cost !== null ? w.plan.cost.toFixed(1) : '–'}</td>
            <td style={{ ...cell, textAlign: 'left', fontFamily: 'inherit', whiteSpace: 'normal' }}>
              {w.plan
                ? ((reason) => (reason ? `no: ${reason}` : 'yes'))(
                    whyNotOneBatch(
                      w.plan.ml,
                      w.group.coats,
                      coatMinutes,
                      w.plan.potMinutes,
                      w.product?.flashMinutes ?? 12,
                    ),
                  )
                : 'see its page'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
