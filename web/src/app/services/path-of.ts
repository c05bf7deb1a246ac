/** The path of an address, without what stands behind it. */
export const pathOf = (address: string): string => address.replace(/[?#].*$/, '');
