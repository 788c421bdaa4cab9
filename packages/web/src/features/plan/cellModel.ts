import { cellEditSchema } from '@steady-gleam/contracts';
import {
  ALL,
  type Cell,
  type CellEdit,
  type JobPlan,
  reachFaults,
  type Reach,
  type ReachRule,
  type SprayArea,
} from '@steady-gleam/core/jobs';
import { numberIn } from '../../shared/numberIn';
import { checkWith, type Checked } from '../../shared/checkWith';

/** One layer on one area, as the table shows it. */
export interface TableCell {
  readonly areaId: string;
  readonly layerId: string;
  readonly cells: readonly Cell[];
  readonly coats: number;
  /** Of the last coat: how far the layer goes. */
  readonly reach: Reach;
  readonly isEdited: boolean;
}

/** What a layer is on an area, by the plan; with no cells where it is not laid there. */
export function tableCell(plan: JobPlan, edits: readonly CellEdit[], areaId: string, layerId: string): TableCell {
  const cells = plan.cells.filter((c) => c.areaId === areaId && c.layerId === layerId);
  const edit = edits.find((e) => e.areaId === areaId && e.layerId === layerId);
  return {
    areaId,
    layerId,
    cells,
    coats: cells.reduce((sum, c) => sum + c.coats, 0),
    reach: cells.at(-1)?.reach ?? { kind: 'none' },
    isEdited: edit !== undefined,
  };
}

/** A cell as it is being typed. */
export interface TypedCell {
  readonly kind: Reach['kind'];
  readonly coats: string;
  readonly m2: string;
  readonly endCm: string;
  readonly fadeCm: string;
  readonly stepCm: string;
  readonly from: string;
}

export function typedCell(cell: TableCell, edit: CellEdit | undefined): TypedCell {
  const reach = edit?.reach ?? cell.reach;
  const blend = reach.kind === 'blend' ? reach : { endCm: 40, fadeCm: 15, stepCm: 10, from: '' };
  return {
    kind: reach.kind,
    coats: String(Number((edit?.coats ?? cell.coats).toFixed(2))),
    m2: reach.kind === 'spot' ? String(reach.m2) : '0.1',
    endCm: String(blend.endCm),
    fadeCm: String(blend.fadeCm),
    stepCm: String(blend.stepCm),
    from: blend.from,
  };
}

const FIELD_OF: Record<ReachRule, string> = { beyond: 'endCm', longFade: 'fadeCm', wholeArea: 'm2' };
const sayReachFault = (rule: ReachRule, limit: number, name: string): string =>
  ({
    beyond: `${name} is ${Math.round(limit)} cm long: end the blend before that, or lay it to the edge.`,
    longFade: 'The fade can’t be longer than the blend itself.',
    wholeArea: `${name} has ${limit.toFixed(2)} m²: a spot is smaller, or lay it all over.`,
  })[rule];

/** What was typed of a cell as it is kept, or the sentences by field that stand in its way. */
export function checkedCell(typed: TypedCell, area: SprayArea, layerId: string): Checked<CellEdit> {
  const number = (text: string) => numberIn(text);
  const reach: Reach =
    typed.kind === 'spot'
      ? { kind: 'spot', m2: number(typed.m2) }
      : typed.kind === 'blend'
        ? {
            kind: 'blend',
            endCm: number(typed.endCm),
            fadeCm: number(typed.fadeCm),
            stepCm: number(typed.stepCm),
            from: typed.from.trim(),
          }
        : typed.kind === 'none'
          ? { kind: 'none' }
          : ALL;
  const found = checkWith(cellEditSchema, { areaId: area.id, layerId, coats: number(typed.coats), reach }, (path) =>
    path.replace('reach.', ''),
  );
  const faults = {
    ...(found.ok ? {} : found.faults),
    ...Object.fromEntries(
      reachFaults(reach, area).map(({ rule, limit }) => [FIELD_OF[rule], sayReachFault(rule, limit, area.name)]),
    ),
  };
  return found.ok && !Object.keys(faults).length ? found : { ok: false, faults };
}

/** The edits with one more, or without it. */
export const withEdit = (
  edits: readonly CellEdit[],
  at: Pick<CellEdit, 'areaId' | 'layerId'>,
  edit: CellEdit | null,
) => [...edits.filter((e) => e.areaId !== at.areaId || e.layerId !== at.layerId), ...(edit ? [edit] : [])];
