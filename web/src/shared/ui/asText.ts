/** A part of an address that may be missing, or stand there several times. */
export const asText = (value: unknown) => (typeof value === 'string' ? value : '');
