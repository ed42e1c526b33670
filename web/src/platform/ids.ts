/** Short random names for things made in the interface. */
export const newId = (): string => crypto.randomUUID().replaceAll('-', '').slice(0, 12);
