import { TinyFaceDetector, TinyFaceDetectorOptions, env, tf } from '@vladmandic/face-api';
import manifest from '@vladmandic/face-api/model/tiny_face_detector_model-weights_manifest.json';
import weightsAddress from '@vladmandic/face-api/model/tiny_face_detector_model.bin?url';
import type { Face, SmallFrame } from '@core/framing';

/** Longer side of what is looked at: a face of a sixth of it is found. The network wants a multiple of 32. */
export const FACE_LOOK = 320;
/** What is less sure is as often none. */
const LEAST_CERTAINTY = 0.5;

/** What the package asks its surroundings for; a worker has no elements, and it is handed pixels alone. */
function setSurroundings(): void {
  const none = (): never => {
    throw new Error('a worker has no elements');
  };
  env.setEnv({
    Canvas: OffscreenCanvas,
    CanvasRenderingContext2D: OffscreenCanvasRenderingContext2D,
    Image: class {},
    ImageData,
    Video: class {},
    createCanvasElement: none,
    createImageElement: none,
    createVideoElement: none,
    fetch,
    readFile: none,
  } as unknown as Parameters<typeof env.setEnv>[0]); // it is typed for pages
}

/** What the package has of its library, and does not say in its types. */
const library = tf as unknown as {
  readonly setBackend: (name: string) => Promise<boolean>;
  readonly ready: () => Promise<void>;
};

/** On the graphics card where there is one, else on the processor: a second a look there. */
async function choosePlace(): Promise<void> {
  for (const place of ['webgl', 'cpu'])
    if (await library.setBackend(place).catch(() => false)) {
      await library.ready();
      return;
    }
}

/** The pixels without alpha, over black. [height × width × 3] */
function rgbOf({ width, height, rgba }: SmallFrame): Int32Array {
  const out = new Int32Array(width * height * 3);
  for (let i = 0; i < width * height; i++)
    for (let c = 0; c < 3; c++) out[i * 3 + c] = (rgba[i * 4 + c]! * rgba[i * 4 + 3]!) / 255;
  return out;
}

/**
 * Finds faces, by a network that ships within its package. Rejects if it cannot be loaded. Only in a worker.
 * @returns what looks at a frame whose longer side is {@link FACE_LOOK}.
 */
export async function openFaceFinder(): Promise<(frame: SmallFrame) => Promise<Face[]>> {
  setSurroundings();
  await choosePlace();
  const response = await fetch(weightsAddress);
  if (!response.ok) throw new Error(`the server answered ${response.status}`);
  const [group] = manifest;
  const network = new TinyFaceDetector();
  const weights = group!.weights as Parameters<typeof tf.io.decodeWeights>[1]; // as the package ships it
  network.loadFromWeightMap(tf.io.decodeWeights(await response.arrayBuffer(), weights));
  const options = new TinyFaceDetectorOptions({ inputSize: FACE_LOOK, scoreThreshold: LEAST_CERTAINTY });
  return async (frame) => {
    const pixels = tf.tensor3d(rgbOf(frame), [frame.height, frame.width, 3]);
    try {
      const found = await network.locateFaces(pixels, options);
      return found.map(({ score, relativeBox: { x, y, width, height } }) => ({
        x,
        y,
        width,
        height,
        certainty: score,
      }));
    } finally {
      pixels.dispose();
    }
  };
}
