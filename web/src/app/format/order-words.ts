import type { OrderState } from '@vestigia/contract';

/** What an order is, as people say it. */
export const ORDER_STATE_LABELS: Readonly<Record<OrderState, string>> = {
  asked: $localize`asked for`,
  agreed: $localize`agreed`,
  calledOff: $localize`called off`,
};

/** How an order is called in talk. */
export const orderName = (number: number): string => $localize`Order ${number}`;
