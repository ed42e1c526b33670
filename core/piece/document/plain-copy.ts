/** A deep copy of a part of a document: documents are plain JSON, and core has no structuredClone. */
export const plainCopy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
