import { Box, Button, Typography, useTheme } from '@mui/material';
import type { StoredProduct } from '@steady-gleam/contracts';
import { productsToCsv } from '@steady-gleam/core/formats';
import { download } from '../../shared/download';
import { FileButton } from '../../shared/FileButton';

interface ProductsSideProps {
  readonly products: readonly StoredProduct[];
  /** What was wrong with the last file, a sentence each. */
  readonly problems: readonly string[];
  readonly onAdd: () => void;
  readonly onFile: (file: File) => void;
}

/** Beside the products: what stands on a sheet, and the ways in and out. */
export function ProductsSide({ products, problems, onAdd, onFile }: ProductsSideProps) {
  const { tones } = useTheme();
  return (
    <>
      <Typography variant="h2">From their sheets</Typography>
      <Typography>
        Ratio, solids, density, VOC, times and film stand on every product’s technical sheet. Once they are here, the
        mix room pours from them and the spray plan waits by them.
      </Typography>
      <Button variant="contained" sx={{ minHeight: 52 }} onClick={onAdd}>
        Add a product
      </Button>
      <FileButton variant="outlined" label="File of products" accept=".csv,text/csv" onFile={onFile}>
        Take in a CSV
      </FileButton>
      <Button
        variant="outlined"
        disabled={!products.length}
        onClick={() =>
          download(new Blob([productsToCsv(products.map((p) => p.product))], { type: 'text/csv' }), 'products.csv')
        }
      >
        Save as CSV
      </Button>
      {problems.length ? (
        <Box role="alert" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25 }}>
          {problems.map((p) => (
            <Typography key={p} variant="body2">
              {p}
            </Typography>
          ))}
        </Box>
      ) : null}
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 'auto' }}>
        The products the shop starts with are invented, their figures common practice. The sheet of the product in your
        hand, local rules and licensed practice come first.
      </Typography>
    </>
  );
}

/** Beside the guns: what is known of one, and the way to another. */
export function GunsSide({ onAdd }: { readonly onAdd: () => void }) {
  return (
    <>
      <Typography variant="h2">What a gun lays</Typography>
      <Typography>
        What lands is the share of the spray that stays on the piece. It starts as stated and is corrected by every
        batch whose leftover you enter in the mix room.
      </Typography>
      <Button variant="contained" sx={{ minHeight: 52 }} onClick={onAdd}>
        Add a gun
      </Button>
    </>
  );
}
