/** The ids of a table as a list that a schema takes. */
export const idsOf = <T extends string>(table: Readonly<Record<T, unknown>>): [T, ...T[]] =>
  Object.keys(table) as [T, ...T[]]; // keys of a literal object, which is not empty
