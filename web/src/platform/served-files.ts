type Serve = (address: string) => Promise<Response>;

let serve: Serve = (address) => fetch(address);

/** A file that the painter needs, by its address on the server. Rejects if it cannot be asked for. */
export const servedFile: Serve = (address) => serve(address);

/** Has files come from elsewhere: a page that stands alone has them within itself. */
export function serveFrom(other: Serve): void {
  serve = other;
}
