import { useWide } from '../../shared/useWide';

interface ProductHeadProps {
  readonly th: {
    borderTop: number;
    fontWeight: number;
    fontSize: number;
    verticalAlign: 'bottom';
    textAlign: 'right';
    whiteSpace: 'nowrap';
    padding: '7px 10px 7px 0';
  };
}

/** Figures of products by their columns. */
export function ProductHead({ th }: ProductHeadProps) {
  const wide = useWide();
  return (
    <thead>
      <tr>
        <th scope="col" style={{ ...th, textAlign: 'left' }}>
          product
        </th>
        <th scope="col" style={th}>
          ratio
        </th>
        <th scope="col" style={th}>
          solids
        </th>
        <th scope="col" style={th}>
          film a coat
        </th>
        <th scope="col" style={th}>
          flash
        </th>
        {wide ? (
          <>
            <th scope="col" style={th}>
              pot life
            </th>
            <th scope="col" style={th}>
              VOC
            </th>
          </>
        ) : null}
        <th scope="col" style={{ ...th, textAlign: 'left' }}>
          sheet
        </th>
        <td style={{ ...th, padding: 0 }} />
      </tr>
    </thead>
  );
}
