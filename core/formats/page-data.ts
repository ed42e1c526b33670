import * as z from 'zod';

/**
 * What a page that plays a piece by itself carries beside the player: gzipped JSON, in base64, in the element with
 * this id.
 */
export const PAGE_DATA_ID = 'piece';

/** Read by the player, which ships in the same file: only what it must not rely on is checked. */
export const pageDataSchema = z.object({
  /** The document and what was found in its song, as the piece file has them. */
  piece: z.unknown(),
  analysis: z.unknown(),
  formatId: z.string(),
  /** Frames that are played: the first of them and how many. */
  first: z.number().int().min(0),
  count: z.number().int().min(1),
  /** The sound of just these frames, a file in base64; null for silence. */
  sound: z.string().nullable(),
  /** Files that the painter needs, in base64, by their address on the server. */
  files: z.record(z.string(), z.string()),
});
export type PageData = z.infer<typeof pageDataSchema>;

/** Where the painter looks for the engine that makes one shape of several. */
export const PATH_ENGINE_ADDRESS = '/pathkit.wasm';
