import type { Receipt } from '@core/formats';
import { AppError, TryLater } from '../platform/errors';
import { against, makePost, postOf, receivedOf } from './channel';
import type { Channel, OfferedUpload } from './channel';
import { uploadFile } from './upload-file';

export interface ChannelSending {
  readonly file: string;
  readonly sha256: string;
  readonly offered: OfferedUpload;
  readonly title: string;
  readonly text: string;
  /** The same for every try of this sending: by it the channel, and we, know whether it was posted before. */
  readonly key: string;
  readonly begun: string | null;
  readonly onBegun: (address: string | null) => Promise<void>;
  readonly onProgress: (share: number) => void;
  readonly signal: AbortSignal;
}

/** Where the upload begins and ends on the way, 0 to 1. */
const [UPLOAD_FROM, UPLOAD_TO] = [0.02, 0.94];

/**
 * Sends a file to a channel: asks whether it takes it, uploads it, looks whether it arrived as it is, posts it and looks
 * whether the post is there. A channel's word is not believed: it may say that it failed and have posted, or the other
 * way round. @throws AppError SEND_REFUSED, TryLater, Cancelled.
 */
export async function sendToChannel(channel: Channel, what: ChannelSending): Promise<Receipt> {
  const { offered, key, signal, onProgress } = what;
  // A try before this one may have got through without our hearing of it.
  const before = await postOf(channel, key, signal);
  if (before) return seen(before, what);
  const reasons = await against(channel, offered, signal);
  if (reasons.length > 0) throw new AppError('SEND_REFUSED', reasons.join('; '));
  onProgress(UPLOAD_FROM);
  let begun = Promise.resolve();
  const upload = await uploadFile(channel, {
    ...{ file: what.file, bytes: offered.bytes, begun: what.begun, signal },
    onBegun: (address) => void (begun = begun.then(() => what.onBegun(address))),
    onProgress: (share) => onProgress(UPLOAD_FROM + share * (UPLOAD_TO - UPLOAD_FROM)),
  }).finally(() => begun); // where it goes on is known before anything else happens
  const received = await receivedOf(channel, upload, signal);
  if (received.bytes !== offered.bytes || received.sha256 !== what.sha256) {
    await what.onBegun(null); // sent anew, not gone on with
    throw new TryLater('it did not arrive as it was sent');
  }
  onProgress(UPLOAD_TO);
  const { title, text } = what;
  await makePost(channel, key, { upload, title, text, fileName: offered.fileName }, signal).catch(
    async (error: unknown) => {
      if (signal.aborted || !(await postOf(channel, key, signal).catch(() => null))) throw error;
    },
  );
  const post = await postOf(channel, key, signal);
  if (!post) throw new TryLater('it said that it had posted it, but it is not there');
  return seen(post, what);
}

/** @throws TryLater if a post is not what was sent. */
function seen(post: Receipt, { offered, sha256 }: ChannelSending): Receipt {
  if (post.bytes !== offered.bytes || (post.sha256 !== undefined && post.sha256 !== sha256))
    throw new TryLater('what is posted there is not what was sent');
  return post;
}
