export type { Goods, GoodsKind, GoodsMove, GoodsOfGroup, GoodsOfLine, GoodsRefusal } from './goods';
export { foldGoods, GOODS_KINDS, goodsRefusal, sayGoodsRefusal, standingMoves } from './goods';
export type { ClaimedLot, ClaimingLine, LineStanding, LineState } from './line-standing';
export { LINE_STATE_LABELS, LINE_STATES, standLines, standOrder } from './line-standing';
export type { SetOfLine } from './sets-of-line';
export { saySetCaution, setsOfLine } from './sets-of-line';
