export {
  additiveSuits,
  adviseAdditive,
  reducerFor,
  reducerPace,
  LARGE_JOB_M2,
  PRODUCT_KINDS,
  STARTING_PRODUCTS,
  type Additive,
  type AdditiveAdvice,
  type AdditiveRole,
  type Product,
  type Chemistry,
} from './products';
export { GUN_KINDS, STARTING_GUNS, type Gun } from './guns';
export { canWait, wayOf, wayTells, type Way } from './ways';
export { cupOf, productFor, productKindOf } from './productOf';
