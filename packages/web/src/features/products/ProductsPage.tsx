import { Box, Button, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { gunsApi, productsApi, sheetPath, type StoredGun, type StoredProduct } from '@steady-gleam/contracts';
import { STARTING_GUNS, STARTING_PRODUCTS, type Gun, type Product } from '@steady-gleam/core/products';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { ApiFailure, call, putBytes } from '../../shared/apiClient';
import { Answer } from '../../shared/Answer';
import { Bench } from '../../shared/Bench';
import { Notice } from '../../shared/Notice';
import { useBatches, useGuns, useProducts, useShopChange } from '../../shared/useShop';
import { checkGun, checkProduct, GUN_FIELDS, gunToTyped, PRODUCT_FIELDS, productToTyped } from './shelfForms';
import { ShelfForm } from './ShelfForm';
import { newId } from '../../shared/newId';
import { ProductTable } from './ProductTable';
import { GunTable } from './GunTable';
import { takeProducts } from './productsFile';
import { GunsSide, ProductsSide } from './ShelfSides';

type Editing =
  | { readonly what: 'product'; readonly key: string; readonly stored: StoredProduct | null; readonly start: Product }
  | { readonly what: 'gun'; readonly key: string; readonly stored: StoredGun | null; readonly start: Gun };

/** The shop's shelf: products by their sheets, and guns with what they taught. */
export function ProductsPage() {
  const [params, setParams] = useSearchParams();
  const what = params.get('show') === 'guns' ? 'guns' : 'products';
  const products = useProducts();
  const guns = useGuns();
  const { data: batches = [] } = useBatches();
  const [editing, setEditing] = useState<Editing | null>(null);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const { put, add, remove, putGun, removeGun, sheet } = useShelfChanges();
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
          <ProductsSide
            products={products.data}
            problems={problems}
            onAdd={() => editProduct(null, { ...STARTING_PRODUCTS[3]!, id: newId(), name: '', note: '' })}
            onFile={(file) => void takeProducts(file, add.mutateAsync, setProblems)}
          />
        ) : (
          <GunsSide onAdd={() => editGun(null, { ...STARTING_GUNS[0]!, id: newId(), name: '' })} />
        )
      }
    >
      {editing?.what === 'product' ? (
        <ShelfForm
          key={editing.key}
          title={editing.stored ? `Change ${editing.start.name}` : 'Add a product'}
          start={productToTyped(editing.start)}
          fields={PRODUCT_FIELDS}
          isMixed
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
          isMixed={false}
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

/** What can be changed on the shelf. */
function useShelfChanges() {
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
  return { put, add, remove, putGun, removeGun, sheet };
}
