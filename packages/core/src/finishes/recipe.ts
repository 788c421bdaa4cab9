import type { StyleId } from './styles';

/** What a mix is laid over and how: ground, mix strength, style and count of coats, control coats on top (0 for none). */
export interface Recipe {
  readonly groundId: string;
  readonly strength: number;
  readonly style: StyleId;
  readonly coats: number;
  readonly controlCoats: number;
}
