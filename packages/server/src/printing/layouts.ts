import type { CustomTableLayout } from 'pdfmake/interfaces';

const hairlines = (pad: number, left: (i: number) => number, right: number): CustomTableLayout => ({
  hLineWidth: (i) => (i === 0 ? 0 : 0.5),
  vLineWidth: () => 0,
  paddingTop: () => pad,
  paddingBottom: () => pad,
  paddingLeft: left,
  paddingRight: () => right,
});

/** How tables of papers are ruled. A document names them: what it says can be handed to another thread. */
export const LAYOUTS = {
  hairlines: hairlines(2.5, (i) => (i ? 4 : 0), 2),
  rungs: { hLineWidth: (i) => (i === 0 ? 0 : 0.5), vLineWidth: () => 0, paddingTop: () => 2, paddingBottom: () => 2 },
  facts: { defaultBorder: false, paddingTop: () => 1.2, paddingBottom: () => 1.2, paddingLeft: () => 0 },
  'facts of a label': {
    defaultBorder: false,
    paddingTop: () => 0.4,
    paddingBottom: () => 0.4,
    paddingLeft: () => 0,
    paddingRight: () => 2,
  },
  'parts of a sheet': hairlines(3, (i) => (i ? 5 : 0), 0),
  'parts of a label': hairlines(0.8, (i) => (i ? 5 : 0), 0),
  boxes: {
    ...{ hLineWidth: () => 0.6, vLineWidth: () => 0.6 },
    ...{ paddingTop: () => 1, paddingBottom: () => 1, paddingLeft: () => 1, paddingRight: () => 1 },
  },
} satisfies Record<string, CustomTableLayout>;
