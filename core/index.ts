// The face of core, room by room, in the order of the work: a room knows only those before it.
export * from './quantity/index';
export * from './calendar/index';
export * from './colour/index';
export * from './instrument/index';
export * from './bath/index';
export * from './stock/index';
export * from './safety/index';
export * from './catalogue/index';
export * from './recipe/index';
export * from './scaling/index';
export * from './trial/index';
export * from './checks/index';
export * from './run/index';
export * from './judge/index';
export * from './match/index';
export * from './schedule/index';
export * from './trace/index';
