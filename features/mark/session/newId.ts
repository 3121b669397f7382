/** An identity for a new mark. */
export const newId = (): string => crypto.randomUUID().slice(0, 13).replace('-', '');
