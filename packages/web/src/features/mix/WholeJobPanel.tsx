import { Box, Button, Typography } from '@mui/material';
import { leftoverAsGround, type Need, whyNotOneBatch, type BatchPlan, type MixGroup } from '@steady-gleam/core/mixing';
import type { Product } from '@steady-gleam/core/products';
import type { ReactNode } from 'react';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Field } from '../../ui/Field';
import { countCoats, sayCoats } from '../../shared/jobModel';
import { MeasureField } from '../../ui/MeasureField';
import { numberIn } from '../../shared/numberIn';
import { useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import { Table, type Column } from '../../ui/Table';

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
  const units = useUnits();
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
        <CupTable all={all} onShow={onShow} coatMinutes={coatMinutes} />
      </Box>
    </Bench>
  );
}

interface CupTableProps {
  readonly all: readonly WorkedGroup[];
  readonly onShow: (groupId: string) => void;
  readonly coatMinutes: number;
}

/** Every cup of the job, a row each. */
function CupTable({ all, onShow, coatMinutes }: CupTableProps) {
  const wide = useWide();
  const units = useUnits();
  const oneBatch = (w: WorkedGroup): string => {
    if (!w.plan) return 'see its page';
    const flash = w.product?.flashMinutes ?? 12;
    const reason = whyNotOneBatch(w.plan.ml, w.group.coats, coatMinutes, w.plan.potMinutes, flash);
    return reason ? `no: ${reason}` : 'yes';
  };
  const figure = (head: string, draw: (w: WorkedGroup) => string): Column<WorkedGroup> => ({
    ...{ head, figure: true, draw },
  });
  return (
    <Table
      label="Whole job"
      rows={all}
      keyOf={(w) => w.group.id}
      columns={[
        {
          head: '',
          draw: (w) => (
            <>
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
            </>
          ),
        },
        figure('coats', (w) => sayCoats(w.group.coats)),
        ...(wide ? [figure('dry film', (w) => units.say('film', w.group.solidMl / w.group.areaM2))] : []),
        figure('needed', (w) => units.range('volume', w.need.low, w.need.high)),
        { ...figure('mix', (w) => (w.plan ? units.say('volume', w.plan.ml) : '–')), style: { fontWeight: 700 } },
        figure('material', (w) => (w.plan && w.plan.cost !== null ? w.plan.cost.toFixed(1) : '–')),
        { head: 'in one batch?', draw: oneBatch },
      ]}
    />
  );
}
