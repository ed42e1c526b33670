/** Percent between two lines where nobody sees a line change. */
const STEP = 10;

/** Tells how far something is on stderr: one line that changes in a terminal, a line every tenth elsewhere. */
export function progressOn(stream: NodeJS.WriteStream, what: string): (share: number) => void {
  let told = 0;
  return (share) => {
    const percent = Math.min(100, Math.floor(share * 100));
    if (stream.isTTY) stream.write(`\r${what}: ${percent} %${percent === 100 ? '\n' : ''}`);
    else if (percent >= told + STEP) {
      told = percent - (percent % STEP);
      stream.write(`${what}: ${told} %\n`);
    }
  };
}
