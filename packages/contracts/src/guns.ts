import { GUN_KINDS, type Gun } from '@steady-gleam/core/products';
import { array, object, string } from 'yup';
import { endpoint } from './endpoint';
import { figure, named, removal, schemaOf, version, withVersion } from './figures';

const id = string().uuid().required();
const name = named();

export const gunSchema = schemaOf<Gun>()(
  object({
    id,
    name,
    kind: string()
      .oneOf<Gun['kind']>([...GUN_KINDS], 'Choose the kind of gun.')
      .required('Choose the kind of gun.'),
    tipMm: figure('The tip', 0.1, 4, ' mm'),
    pressureBar: figure('The pressure', 0.2, 8, ' bar'),
    fanCm: figure('The fan', 1, 60, ' cm'),
    distanceCm: figure('The distance', 3, 60, ' cm'),
    speedCmS: figure('The speed', 3, 200, ' cm/s'),
    flowMlMin: figure('The flow', 1, 1000, ' ml/min'),
    turns: figure('The turns', 0.1, 8),
    transfer: figure('What lands', 0.05, 1),
    lossMl: figure('What stays in cup and gun', 0, 1000, ' ml'),
  }).noUnknown(),
);

const storedGunSchema = object({ version, gun: gunSchema });
export type StoredGun = { version: number; gun: Gun };

export const gunsApi = {
  list: endpoint({
    method: 'GET',
    path: '/api/guns',
    body: null,
    reply: array(storedGunSchema.required()).required(),
  }),
  put: endpoint({
    method: 'PUT',
    path: '/api/guns/:id',
    body: object({ ...withVersion, gun: gunSchema }).noUnknown(),
    reply: storedGunSchema,
  }),
  remove: endpoint({ method: 'DELETE', path: '/api/guns/:id', body: removal, reply: object({}) }),
} as const;
