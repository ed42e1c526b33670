/**
 * Evaluates what is typed into a number field: numbers, + − * / and brackets, with units ignored ("12 px * 2"). A
 * leading + - * / with nothing before it works on the present value ("*2" doubles; to type a negative number, write
 * "0-5" or "-5" as a whole).
 * @returns null if it is no arithmetic.
 */
export function evaluateArithmetic(text: string, current: number): number | null {
  const source = text
    .replace(/px|%|°|ms|bpm/gi, '')
    .replace(/,/g, '.')
    .replace(/−/g, '-')
    .replace(/×/g, '*')
    .trim();
  if (source === '') return null;
  const relative = /^[+*/]/.test(source) ? `${current}${source}` : source;
  let at = 0;
  const skip = () => {
    while (relative[at] === ' ') at++;
  };
  const atom = (): number => {
    skip();
    if (relative[at] === '-') {
      at++;
      return -atom();
    }
    if (relative[at] === '(') {
      at++;
      const inner = sum();
      skip();
      if (relative[at] !== ')') return Number.NaN;
      at++;
      return inner;
    }
    const match = /^\d*\.?\d+(?:e[+-]?\d+)?|^\d+\.?/i.exec(relative.slice(at));
    if (!match) return Number.NaN;
    at += match[0].length;
    return Number(match[0]);
  };
  const product = (): number => {
    let value = atom();
    for (skip(); relative[at] === '*' || relative[at] === '/'; skip())
      value = relative[at++] === '*' ? value * atom() : value / atom();
    return value;
  };
  const sum = (): number => {
    let value = product();
    for (skip(); relative[at] === '+' || relative[at] === '-'; skip())
      value = relative[at++] === '+' ? value + product() : value - product();
    return value;
  };
  const value = sum();
  skip();
  return at === relative.length && Number.isFinite(value) ? value : null;
}
