import * as z from 'zod';
import { textSchema } from '../time';

/** Where finished files can be sent. The panel and the API go by this table; how each is sent is the server's. */
export const DESTINATION_KINDS = {
  channel: {
    label: 'Channel',
    hint: 'An account at a place that takes files over the network and has rules of its own. What breaks off goes on where it stopped.',
  },
  folder: {
    label: 'Folder',
    hint: 'A folder on the disk of the server. A file is there whole or not at all, and none is written over.',
  },
} as const satisfies Record<string, { readonly label: string; readonly hint: string }>;
export type DestinationKind = keyof typeof DESTINATION_KINDS;

const named = textSchema(80).trim().min(1);
/** `http://host:port`, without a path. */
const addressSchema = z
  .string()
  .max(300)
  .regex(/^https?:\/\/[^/?#@\s]+$/, 'an address such as http://127.0.0.1:4180');
/** Longest name of a folder that disks take, in bytes of UTF-8. */
const MAX_NAME_BYTES = 255;
/** A path below the folder that is sent to; no part of it begins with a dot. */
const folderSchema = z
  .string()
  .trim()
  .min(1)
  .max(200)
  .regex(/^[^./\\\0][^/\\\0]*(\/[^./\\\0][^/\\\0]*)*$/u, 'a name, or several with / between')
  .refine(
    (folder) => folder.split('/').every((name) => new TextEncoder().encode(name).length <= MAX_NAME_BYTES),
    'shorter names',
  );

export const destinationSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('channel'),
    name: named,
    address: addressSchema,
    /** What the account is known by there. */
    token: z
      .string()
      .trim()
      .min(1)
      .max(200)
      .regex(/^[\x21-\x7e]+$/, 'letters, digits and signs on one line, without spaces'),
    /** The place within it that is sent to. */
    place: z.string().regex(/^[a-z0-9-]{1,60}$/),
  }),
  z.strictObject({ kind: z.literal('folder'), name: named, folder: folderSchema }),
]);
export type Destination = z.infer<typeof destinationSchema>;

/** How often something is sent again by itself, and what is waited before: seconds, growing. */
export const MOST_TRIES = 8;
export const waitBefore = (tries: number): number => Math.min(300, 2 ** tries);

/** What the destination says that it has. */
export const receiptSchema = z.object({
  /** Where it can be seen; of a folder, the path of the file in what is sent to. */
  link: z.string().max(2000),
  at: z.string().max(40),
  bytes: z.number(),
  /** As the destination has it. */
  sha256: z.string().length(64).optional(),
});
export type Receipt = z.infer<typeof receiptSchema>;

/** What goes along with a file. */
export const sendingSchema = z.strictObject({ title: textSchema(200).default(''), text: textSchema(5000).default('') });
