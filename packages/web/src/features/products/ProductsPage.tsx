import { Box, Button, ToggleButton, ToggleButtonGroup, Typography, useTheme } from '@mui/material';
import { gunsApi, productsApi, sheetPath, type StoredGun, type StoredProduct } from '@steady-gleam/contracts';
import { productsToCsv } from '@steady-gleam/core/formats';
import { STARTING_GUNS, STARTING_PRODUCTS, type Gun, type Product } from '@steady-gleam/core/products';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { ApiFailure, call, putBytes } from '../../shared/apiClient';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { FileButton } from '../../shared/FileButton';
import { download } from '../../shared/download';
import { Notice } from '../../shared/Notice';
import { useBatches, useGuns, useProducts, useShopChange } from '../../shared/useShop';
import { checkGun, checkProduct, GUN_FIELDS, gunToTyped, PRODUCT_FIELDS, productToTyped } from './shelfForms';
import { ShelfForm } from './ShelfForm';
import { newId } from '../../shared/newId';
import { ProductTable } from './ProductTable';
import { GunTable } from './GunTable';
import { takeProducts } from './productsFile';

type Editing =
  | { readonly what: 'product'; readonly key: string; readonly stored: StoredProduct | null; readonly start: Product }
  | { readonly what: 'gun'; readonly key: string; readonly stored: StoredGun | null; readonly start: Gun };

/** The shop's shelf: products by their sheets, and guns with what they taught. */
export function ProductsPage() {
  const { tones } = useTheme();
  const [params, setParams] = useSearchParams();
  const what = params.get('show') === 'guns' ? 'guns' : 'products';
  const products = useProducts();
  const guns = useGuns();
  const { data: batches = [] } = useBatches();
  const [editing, setEditing] = useState<Editing | null>(null);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const put = useShopChange('products', (p: { version: number; product: Product }) =>
    call(productsApi.put, { params: { id: p.product.id }, body: p }),
  );
  const add = useShopChange('products', (list: readonly Product[]) =>
    call(productsApi.add, { body: { products: [...list] } }),
  );
  const remove = useShopChange('products', (s: StoredProduct) =>
    call(productsApi.remove, { params: { id: s.product.id }, body: { version: s.version } }),
  );
  const putGun = useShopChange('guns', (g: { version: number; gun: Gun }) =>
    call(gunsApi.put, { params: { id: g.gun.id }, body: g }),
  );
  const removeGun = useShopChange('guns', (s: StoredGun) =>
    call(gunsApi.remove, { params: { id: s.gun.id }, body: { version: s.version } }),
  );
  const sheet = useShopChange('products', ({ id, file }: { id: string; file: File }) =>
    putBytes(sheetPath(id, file.name), file),
  );
  if (products.isPending || guns.isPending) return <Notice title="Opening the shelf …" />;
  if (products.error || guns.error)
    return (
      <Notice title="The shelf could not be opened." text={(products.error ?? guns.error)?.message}>
        <Button variant="contained" onClick={() => void Promise.all([products.refetch(), guns.refetch()])}>
          Try again
        </Button>
      </Notice>
    );

  const editProduct = (stored: StoredProduct | null, start: Product) =>
    setEditing({ what: 'product', key: newId(), stored, start });
  const editGun = (stored: StoredGun | null, start: Gun) => setEditing({ what: 'gun', key: newId(), stored, start });
  const done = () => setEditing(null);
  const attach = (id: string, file: File) =>
    sheet.mutate(
      { id, file },
      {
        onSuccess: () => setProblems([]),
        onError: (error) =>
          setProblems([error instanceof ApiFailure ? (error.fields['sheet'] ?? error.message) : String(error)]),
      },
    );
  return (
    <Bench
      standalone
      side={
        what === 'products' ? (
          <>
            <Typography variant="h2">From their sheets</Typography>
            <Typography>
              Ratio, solids, density, VOC, times and film stand on every product’s technical sheet. Once they are here,
              the mix room pours from them and the spray plan waits by them.
            </Typography>
            <Button
              variant="contained"
              sx={{ minHeight: 52 }}
              onClick={() => editProduct(null, { ...STARTING_PRODUCTS[3]!, id: newId(), name: '', note: '' })}
            >
              Add a product
            </Button>
            <FileButton
              variant="outlined"
              label="File of products"
              accept=".csv,text/csv"
              onFile={(file) => void takeProducts(file, add.mutateAsync, setProblems)}
            >
              Take in a CSV
            </FileButton>
            <Button
              variant="outlined"
              disabled={!products.data.length}
              onClick={() =>
                download(
                  new Blob([productsToCsv(products.data.map((p) => p.product))], { type: 'text/csv' }),
                  'products.csv',
                )
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
              The products the shop starts with are invented, their figures common practice. The sheet of the product in
              your hand, local rules and licensed practice come first.
            </Typography>
          </>
        ) : (
          <>
            <Typography variant="h2">What a gun lays</Typography>
            <Typography>
              What lands is the share of the spray that stays on the piece. It starts as stated and is corrected by
              every batch whose leftover you enter in the mix room.
            </Typography>
            <Button
              variant="contained"
              sx={{ minHeight: 52 }}
              onClick={() => editGun(null, { ...STARTING_GUNS[0]!, id: newId(), name: '' })}
            >
              Add a gun
            </Button>
          </>
        )
      }
    >
      {editing?.what === 'product' ? (
        <ShelfForm
          key={editing.key}
          title={editing.stored ? `Change ${editing.start.name}` : 'Add a product'}
          start={productToTyped(editing.start)}
          fields={PRODUCT_FIELDS}
          check={(typed) => checkProduct(editing.start.id, typed)}
          onKeep={(product) => put.mutateAsync({ version: editing.stored?.version ?? 0, product })}
          onRemove={editing.stored ? () => remove.mutateAsync(editing.stored!) : null}
          onDone={done}
        />
      ) : editing ? (
        <ShelfForm
          key={editing.key}
          title={editing.stored ? `Change ${editing.start.name}` : 'Add a gun'}
          start={gunToTyped(editing.start)}
          fields={GUN_FIELDS}
          check={(typed) => checkGun(editing.start.id, typed)}
          onKeep={(gun) => putGun.mutateAsync({ version: editing.stored?.version ?? 0, gun })}
          onRemove={editing.stored ? () => removeGun.mutateAsync(editing.stored!) : null}
          onDone={done}
        />
      ) : (
        <>
          <Answer
            why={
              what === 'products'
                ? 'The mix room takes the first of each kind unless the job says another.'
                : 'The mix room and the spray plan start from these settings.'
            }
          >
            {what === 'products'
              ? products.data.length
                ? `${products.data.length} products on the shelf.`
                : 'No products yet: add the ones you spray, from their sheets.'
              : guns.data.length
                ? `${guns.data.length} guns on the rack.`
                : 'No guns yet: add the ones you spray with.'}
          </Answer>
          <ToggleButtonGroup
            exclusive
            value={what}
            aria-label="Shelf"
            onChange={(_, v: typeof what | null) => v && setParams({ show: v }, { replace: true })}
            sx={{ mb: 1 }}
          >
            <ToggleButton value="products">Products</ToggleButton>
            <ToggleButton value="guns">Guns</ToggleButton>
          </ToggleButtonGroup>
          {what === 'products' && !products.data.length ? (
            <Button variant="outlined" sx={{ alignSelf: 'flex-start' }} onClick={() => add.mutate(STARTING_PRODUCTS)}>
              Start with eight usual ones
            </Button>
          ) : null}
          {what === 'products' ? (
            <Box sx={{ overflowX: 'auto' }}>
              <ProductTable products={products.data} onSheet={attach} onChange={(p) => editProduct(p, p.product)} />
            </Box>
          ) : (
            <Box sx={{ overflowX: 'auto' }}>
              <GunTable guns={guns.data} batches={batches} onChange={(g) => editGun(g, g.gun)} />
            </Box>
          )}
        </>
      )}
    </Bench>
  );
}
