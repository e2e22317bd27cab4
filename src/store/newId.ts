/** A new identifier for a piece, a coat or a start: twelve hexadecimal digits. */
export const newId = (): string => crypto.randomUUID().replace(/-/g, '').slice(0, 12);
