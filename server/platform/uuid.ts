const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Whether the database can look for it: it refuses others. */
export const isUuid = (id: string): boolean => UUID.test(id);
