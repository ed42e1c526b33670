/**
 * The painter's modules wait for WebAssembly while they load, and a worker drops messages that arrive before it listens.
 * So the small entry of a worker listens at once and passes on what came meanwhile.
 * @param load - the module that does the work.
 * @param onFailure - what the page is told if it cannot be loaded.
 */
export function queueUntilLoaded<T>(
  load: () => Promise<{ receive: (message: T) => void }>,
  onFailure: (message: string) => void,
): void {
  const waiting: T[] = [];
  self.onmessage = ({ data }: MessageEvent<T>) => void waiting.push(data);
  load().then(
    ({ receive }) => {
      for (const message of waiting) receive(message);
      self.onmessage = ({ data }: MessageEvent<T>) => receive(data);
    },
    (error: unknown) => onFailure(error instanceof Error ? error.message : String(error)),
  );
}
