import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { layerSchema } from '../piece/document/layer-schema';
import type { Layer } from '../piece';
import { freeMoment } from '../time';
import { readSvg, svgLayers } from '.';
import type { Outliner, SvgDrawing } from '.';
import { tightBox } from '../geometry';
import { plainPath } from './path-data';
import { transformOf } from './values';

const outliner: Outliner = {
  familyFor: () => ({ family: 'spline-sans', isKnown: true }),
  outline: (text, { size }) => ({ d: `M0 0L${size} 0L${size} -${size}Z`, width: text.length * size }),
};
const svg = (body: string, attributes = 'width="100" height="100"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${attributes}>${body}</svg>`;
function drawing(text: string, fit?: { width: number; height: number }): SvgDrawing {
  const read = readSvg(text, { outliner, ...(fit ? { fit } : {}) });
  if ('problem' in read) throw new Error(read.problem);
  return read;
}
function layersOf(text: string, fit?: { width: number; height: number }): Layer[] {
  let n = 0;
  return svgLayers(drawing(text, fit), {
    name: 'Logo',
    start: freeMoment(0),
    end: freeMoment(4),
    newId: () => `n${n++}`,
  });
}
const track = (layer: Layer, property: keyof Layer['tracks']): unknown => layer.tracks[property]?.value;

describe('an SVG file as layers', () => {
  it('has one group about all of it, with its parts in their order and by their names', () => {
    const layers = layersOf(
      svg('<g id="kite"><path id="sail" d="M0 0L10 0L10 10Z"/><circle id="eye" r="4" cx="50" cy="50"/></g>'),
    );
    expect(layers.map(({ name, kind }) => [name, kind])).toEqual([
      ['sail', 'path'],
      ['eye', 'path'],
      ['Logo', 'group'],
    ]);
    const root = layers.at(-1)!;
    expect(layers.slice(0, -1).every((layer) => layer.parentId === root.id)).toBe(true);
  });
  it('keeps groups that do something, and leaves out those that hold one thing', () => {
    const layers = layersOf(
      svg(
        '<g><g opacity=".5"><rect width="9" height="9"/><rect x="20" width="9" height="9"/></g></g><g><rect width="5" height="5"/></g>',
      ),
    );
    expect(layers.filter(({ kind }) => kind === 'group').map((layer) => track(layer, 'opacity') ?? 1)).toEqual([
      0.5, 1,
    ]);
  });
  it('lies about the middle of its place, in pixels of it', () => {
    const [rect] = layersOf(svg('<rect x="10" y="20" width="40" height="20"/>'), { width: 400, height: 800 });
    expect([track(rect!, 'position'), track(rect!, 'dimensions')]).toEqual([
      [-80, -80],
      [160, 80],
    ]);
  });
  it('has only layers that a piece may hold', () => {
    const layers = layersOf(
      svg(
        '<defs><linearGradient id="g"><stop offset=".2" stop-color="red"/><stop offset="1"/></linearGradient><clipPath id="c"><rect width="50" height="50"/></clipPath><mask id="m"><rect width="80" height="80" fill="#fff"/></mask></defs>' +
          '<g clip-path="url(#c)" mask="url(#m)"><rect width="90" height="9" fill="url(#g)" stroke="url(#g)" stroke-dasharray="3 1 2"/><text y="20">Kites</text></g>',
      ),
    );
    for (const layer of layers) expect(layerSchema.safeParse(layer)).toMatchObject({ success: true });
    const ids = new Set(layers.map(({ id }) => id));
    expect(ids.size).toBe(layers.length);
    for (const { parentId, matte } of layers) {
      if (parentId !== null) expect(ids).toContain(parentId);
      if (matte) expect(ids).toContain(matte.layerId);
    }
  });
  it('says what it leaves out, by name', () => {
    const read = drawing(
      svg(
        '<style>rect:hover{fill:red} @media print{rect{fill:blue}}</style><image href="data:image/png;base64,AA" width="9" height="9"/><foreignObject/><rect width="9" height="9" fill="url(#p)"/><pattern id="p"/><path d="M0 0L9 9" stroke="red" marker-end="url(#x)"/><filter id="f"><feTurbulence/></filter><circle r="3" filter="url(#f)"/><text><textPath href="#t">x</textPath></text>',
      ),
    );
    expect([...read.left].sort()).toEqual([
      '@media',
      'embedded pictures',
      'filters other than blurs and shadows',
      'foreign content',
      'markers on lines',
      'patterns',
      'text along a path',
      'the style of rect:hover',
    ]);
  });
  it('draws what is used where it is used, but nothing within itself', () => {
    const read = drawing(svg('<g id="a"><rect width="9" height="9"/><use href="#a" x="20"/></g>'));
    expect(read.left).toEqual(['parts that use themselves']);
    const bomb = Array.from(
      { length: 12 },
      (_, i) => `<g id="l${i}">${i === 0 ? '<rect width="1" height="1"/>' : `<use href="#l${i - 1}"/>`.repeat(9)}</g>`,
    ).join('');
    expect(drawing(svg(bomb)).left).toContain('parts beyond a few thousand');
  });
  it('has no place for a file that is none', () => {
    const problem = (text: string): unknown => readSvg(text, { outliner });
    expect(problem('')).toEqual({ problem: 'not-xml' });
    expect(problem('<html/>')).toEqual({ problem: 'not-svg' });
    expect(problem(svg(''))).toEqual({ problem: 'empty' });
    expect(problem(svg('<rect width="9" height="9"/>', 'width="0" height="100"'))).toEqual({ problem: 'empty' });
    expect(problem(svg('<g>'.repeat(120) + '</g>'.repeat(120)))).toEqual({ problem: 'too-deep' });
    expect(problem(svg('<g/>'.repeat(20_001)))).toEqual({ problem: 'too-many' });
    expect(problem(`${svg('')}${' '.repeat(4_000_000)}`)).toEqual({ problem: 'too-large' });
  });
});

describe('transforms and paths', () => {
  const number = fc.double({ min: -50, max: 50, noNaN: true });
  it('a list of transforms is what they make one after another', () => {
    fc.assert(
      fc.property(number, number, number, (x, y, turn) => {
        const whole = transformOf(`translate(${x},${y}) rotate(${turn})`);
        const [a, b] = [transformOf(`translate(${x} ${y})`), transformOf(`rotate(${turn})`)];
        expect(whole).toEqual([b[0], b[1], b[2], b[3], a[4], a[5]].map((v) => expect.closeTo(v, 6)));
      }),
    );
  });
  it('the box of a path holds every point of it, and touches it on all sides', () => {
    const point = fc.tuple(number, number);
    fc.assert(
      fc.property(point, point, point, point, (p, q, r, s) => {
        const d = plainPath(`M${p.join()}C${[...q, ...r, ...s].join()}`, [1, 0, 0, 1, 0, 0])!;
        const [a, b, c, e] = (d.match(/-?[\d.]+/g) ?? [])
          .map(Number)
          .reduce<number[][]>((all, v, i) => (i % 2 === 0 ? [...all, [v]] : (all.at(-1)!.push(v), all)), []) as [
          number[],
          number[],
          number[],
          number[],
        ];
        const box = tightBox(d)!;
        let [left, top] = [Infinity, Infinity];
        for (let i = 0; i <= 200; i++) {
          const t = i / 200;
          const at = (k: number): number =>
            (1 - t) ** 3 * a[k]! + 3 * (1 - t) ** 2 * t * b[k]! + 3 * (1 - t) * t * t * c[k]! + t ** 3 * e[k]!;
          expect(at(0)).toBeGreaterThanOrEqual(box[0] - 1e-6);
          expect(at(0)).toBeLessThanOrEqual(box[2] + 1e-6);
          expect(at(1)).toBeGreaterThanOrEqual(box[1] - 1e-6);
          [left, top] = [Math.min(left, at(0)), Math.min(top, at(1))];
        }
        expect([left - box[0] < 0.1, top - box[1] < 0.1]).toEqual([true, true]);
      }),
      { numRuns: 60 },
    );
  });
});

describe('drop shadows', () => {
  const shadowsOf = (filter: string, style = 'filter="url(#f)"') =>
    layersOf(svg(`<filter id="f">${filter}</filter><g transform="scale(2)"><rect width="9" height="9" ${style}/></g>`))
      .flatMap(({ effects }) => effects)
      .map(({ kind, parameters }) => [kind, ...['colour', 'x', 'y', 'blur'].map((name) => parameters[name]?.value)]);
  it.each([
    ['feDropShadow', '<feDropShadow dx="1" dy="3" stdDeviation="2" flood-color="#f00" flood-opacity="0.5"/>'],
    [
      'steps over an empty ground',
      '<feFlood flood-opacity="0" result="BackgroundImageFix"/><feColorMatrix in="SourceAlpha" values="0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 127 0" result="hardAlpha"/><feOffset dx="1" dy="3"/><feGaussianBlur stdDeviation="2"/><feComposite in2="hardAlpha" operator="out"/><feColorMatrix values="0 0 0 0 1 0 0 0 0 0 0 0 0 0 0 0 0 0 0.5 0"/><feBlend in2="BackgroundImageFix" result="effect1"/><feBlend in="SourceGraphic" in2="effect1" result="shape"/>',
    ],
    [
      'a flood in the moved alpha, merged',
      '<feGaussianBlur in="SourceAlpha" stdDeviation="2"/><feOffset dx="1" dy="3" result="o"/><feFlood flood-color="red" flood-opacity="0.5"/><feComposite in2="o" operator="in"/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge>',
    ],
  ])('are had by %s', (_, filter) => {
    expect(shadowsOf(filter)).toEqual([['shadow', '#ff000080', 2, 6, 4]]);
  });
  it('are had by functions of style sheets, with the colour before or after', () => {
    for (const written of [
      'drop-shadow(1px 3px 2px rgb(255 0 0 / .5))',
      'drop-shadow(#ff000080 1px 3px 2px)',
      'drop-shadow(rgb(255 0 0 / .5) 1px 3px 2px)',
    ])
      expect(shadowsOf('', `style="filter:${written}"`)).toEqual([['shadow', '#ff000080', 2, 6, 4]]);
    expect(shadowsOf('', 'color="#00F" style="filter:drop-shadow(1px 0)"')).toEqual([['shadow', '#0000ff', 2, 0, 0]]);
  });
  it('several of a filter stand in their order, and a colour matrix in linear light is read as such', () => {
    const two =
      '<feDropShadow dx="1" dy="0" stdDeviation="0"/><feMerge result="a"><feMergeNode in="SourceGraphic"/></feMerge>';
    expect(shadowsOf(two)).toEqual([]);
    const half = 'values="0 0 0 0 0.5 0 0 0 0 0.5 0 0 0 0 0.5 0 0 0 1 0"';
    const chain = (more: string) =>
      `<feColorMatrix in="SourceAlpha" ${half} ${more}/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge>`;
    expect(shadowsOf(chain(''))[0]![1]).toBe('#bcbcbc');
    expect(shadowsOf(chain('color-interpolation-filters="sRGB"'))[0]![1]).toBe('#808080');
  });
  it('what a filter does beside is named, and nothing of it is drawn', () => {
    for (const filter of [
      '<feTurbulence/>',
      '<feMorphology in="SourceAlpha" radius="2"/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge>',
      '<feOffset dx="4"/>',
      '<feColorMatrix type="saturate" values="0"/>',
      '<feGaussianBlur in="nowhere" stdDeviation="3"/>',
      `${'<feOffset/>'.repeat(61)}`,
    ]) {
      const read = drawing(svg(`<filter id="f">${filter}</filter><rect width="9" height="9" filter="url(#f)"/>`));
      expect(read.left).toEqual(['filters other than blurs and shadows']);
    }
  });
});

describe('clips made of basic shapes', () => {
  const clipOf = (shape: string, element = '<rect x="10" y="20" width="40" height="20"') => {
    const layers = layersOf(svg(`${element} style="clip-path:${shape}"/>`));
    const mask = layers.flatMap(({ masks }) => masks)[0];
    return mask ? mask.box.map((side) => Math.round(side * 100) / 100) : null;
  };
  it.each([
    ['circle(10px)', [20, 20]],
    ['circle()', [20, 20]],
    ['circle(farthest-side at 0 0)', [80, 80]],
    ['ellipse(25% 50%)', [20, 20]],
    ['inset(25% 10px)', [20, 10]],
    ['inset(5px round 2px) fill-box', [30, 10]],
    ['polygon(evenodd, 0 0, 100% 0, 50% 100%)', [40, 20]],
    ["path('M0 0H8V6Z')", [8, 6]],
    ['view-box circle(50%)', [100, 100]],
  ])('%s', (shape, size) => {
    expect(clipOf(shape)).toEqual(size);
  });
  it('of the box with the stroke where nothing else is said, and hiding all where there is nothing of it', () => {
    const stroked = '<rect x="10" y="20" width="40" height="20" stroke="red" stroke-width="4"';
    expect(clipOf('inset(0)', stroked)).toEqual([44, 24]);
    expect(clipOf('inset(0) fill-box', stroked)).toEqual([40, 20]);
    expect(layersOf(svg('<rect width="9" height="9" style="clip-path:circle(0)"/>'))).toEqual([]);
  });
});
