import { describe, expect, it } from '@jest/globals';
import { layerSchema } from '../piece/document/layer-schema';
import { freeMoment } from '../time';
import { readSvg, svgLayers, writeSvg } from '.';
import type { Outliner } from '.';

const outliner: Outliner = {
  familyFor: () => ({ family: 'spline-sans', isKnown: true }),
  outline: () => ({ d: '', width: 0 }),
};
const NS = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"';
const svg = (body: string, more = ''): string => `<svg ${NS} width="99" height="99" ${more}>${body}</svg>`;
const BOX = '<rect width="9" height="9"/>';
const ENTITIES = Array.from({ length: 9 }, (_, i) => `<!ENTITY e${i + 1} "${`&e${i};`.repeat(10)}">`).join('');

/** Files that try to run, to load, to fill the memory or to break what reads them. */
const HOSTILE: Readonly<Record<string, string>> = {
  'a script': svg(`<script>alert(1)</script>${BOX}`),
  'a script of another file': svg(`<script href="https://example.org/a.js"/>${BOX}`),
  'a script in a data address': svg(`<script xlink:href="data:text/javascript,alert(1)"/>${BOX}`),
  'a script with a prefix': svg(`<svg:script xmlns:svg="http://www.w3.org/2000/svg">alert(1)</svg:script>${BOX}`),
  'a handler on the root': svg(BOX, 'onload="alert(1)"'),
  'a handler on a shape': svg('<rect width="9" height="9" onclick="alert(1)" onmouseover="alert(2)"/>'),
  'a handler in capitals': svg('<rect width="9" height="9" ONLOAD="alert(1)"/>'),
  'a link that runs': svg(`<a href="javascript:alert(1)">${BOX}</a>`),
  'a link that runs, with white space': svg(`<a xlink:href=" java&#10;script:alert(1)">${BOX}</a>`),
  'a link with data': svg(`<a href="data:text/html,&lt;script&gt;alert(1)&lt;/script&gt;">${BOX}</a>`),
  'foreign content': svg(
    `<foreignObject><body xmlns="http://www.w3.org/1999/xhtml"><script>alert(1)</script></body></foreignObject>${BOX}`,
  ),
  'a frame in foreign content': svg(`<foreignObject><iframe src="https://example.org"/></foreignObject>${BOX}`),
  'animation that sets an address': svg(
    `<a id="x">${BOX}</a><set href="#x" attributeName="href" to="javascript:alert(1)"/>`,
  ),
  'animation that sets a handler': svg(`<animate attributeName="onload" values="alert(1)"/>${BOX}`),
  'a picture from the network': svg(`<image href="https://example.org/pixel.png" width="9" height="9"/>${BOX}`),
  'a picture from the disk': svg(`<image xlink:href="file:///etc/passwd" width="9" height="9"/>${BOX}`),
  'an svg in a picture': svg(
    `<image href="data:image/svg+xml,&lt;svg onload='alert(1)'/&gt;" width="9" height="9"/>${BOX}`,
  ),
  'a part of another file': svg(`<use href="https://example.org/a.svg#x"/>${BOX}`),
  'a part in a data address': svg(`<use href="data:image/svg+xml;base64,PHN2Zz4=#x"/>${BOX}`),
  'a style sheet from the network': svg(`<style>@import url(https://example.org/a.css);</style>${BOX}`),
  'a style that asks the network': svg(`<style>rect{fill:url(https://example.org/a.svg#p)}</style>${BOX}`),
  'a font from the network': svg(`<style>@font-face{font-family:x;src:url(https://example.org/x.woff)}</style>${BOX}`),
  'a style with an expression': svg('<rect width="9" height="9" style="fill:expression(alert(1));behavior:url(#x)"/>'),
  'a style sheet as an instruction': `<?xml-stylesheet href="https://example.org/a.css"?>${svg(BOX)}`,
  'a style that breaks off': svg(`<style>rect{fill:red;}}}} <![CDATA[ </style> ]]>`),
  'an entity': `<!DOCTYPE svg [<!ENTITY x "<script>alert(1)</script>">]>${svg(`&x;${BOX}`)}`,
  'an entity of the disk': `<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>${svg(`<text>&x;</text>`)}`,
  'a billion laughs': `<!DOCTYPE svg [<!ENTITY e0 "ha">${ENTITIES}]>${svg('<text>&e9;</text>')}`,
  'an outer document type': `<!DOCTYPE svg SYSTEM "https://example.org/x.dtd">${svg(BOX)}`,
  'parts that use one another': svg(`<g id="a">${BOX}<use href="#b"/></g><g id="b"><use href="#a"/></g>`),
  'a part that uses itself': svg(`<use id="u" href="#u"/>${BOX}`),
  'a clip that clips itself': svg(
    `<clipPath id="c" clip-path="url(#c)">${BOX}</clipPath><g clip-path="url(#c)">${BOX}</g>`,
  ),
  'a mask that masks itself': svg(`<mask id="m"><g mask="url(#m)">${BOX}</g></mask><g mask="url(#m)">${BOX}</g>`),
  'gradients that take over from one another': svg(
    '<linearGradient id="a" href="#b"/><linearGradient id="b" href="#a"/><rect width="9" height="9" fill="url(#a)" stroke="red"/>',
  ),
  'names that every object has': svg(
    '<linearGradient id="__proto__"><stop/></linearGradient><rect id="constructor" class="toString" width="9" height="9" fill="url(#__proto__)" __proto__="x" style="constructor:x"/>',
  ),
  'numbers beyond all bounds': svg(
    '<rect x="1e308" y="-1e308" width="1e400" height="1e308" transform="scale(1e300) translate(1e300)"/><circle r="9e99"/>',
  ),
  'no numbers': svg(
    '<rect x="NaN" y="Infinity" width="abc" height="--1"/><path d="MNaN 0LInfinity 1Z"/><circle r="calc(1px + 2px)"/>',
  ),
  'a matrix that flattens': svg('<g transform="matrix(0 0 0 0 0 0)"><rect width="9" height="9" stroke="red"/></g>'),
  'a path of a hundred thousand points': svg(`<path d="M0 0${'L1 1'.repeat(100_000)}"/>`),
  'a dash of no length along a long line': svg(
    '<path d="M0 0H1e9" stroke="red" stroke-width="1" stroke-dasharray="1e-9 1e-9"/>',
  ),
  'a gradient of thousands of stops': svg(
    `<linearGradient id="g">${'<stop offset="0.5" stop-color="red"/>'.repeat(5000)}</linearGradient><rect width="9" height="9" fill="url(#g)"/>`,
  ),
  'thousands of classes and rules': svg(
    `<style>${'.a{fill:red}'.repeat(9000)}</style><rect class="${'a '.repeat(9000)}" width="9" height="9"/>`,
  ),
  'a name that is markup': svg('<rect id="&quot;&gt;&lt;script&gt;alert(1)&lt;/script&gt;" width="9" height="9"/>'),
  depth: `<svg ${NS}>${'<g>'.repeat(50_000)}${'</g>'.repeat(50_000)}</svg>`,
  'elements without end': svg('<g>'.repeat(9)),
  'half a file': svg(BOX).slice(0, 80),
  'bytes that are no text': '\0\u0001\u0002\uFFFF<svg',
  'a page': '<!doctype html><html><script>alert(1)</script></html>',
  'a file of another language':
    '<?xml version="1.0"?><x:stylesheet xmlns:x="http://www.w3.org/1999/XSL/Transform"><x:template/></x:stylesheet>',
};

const ACTIVE = /script|javascript|onload|onclick|https?:\/\/(?!www\.w3\.org)|file:|data:|expression|foreign/i;

describe('hostile files', () => {
  it('are at least forty', () => expect(Object.keys(HOSTILE).length).toBeGreaterThanOrEqual(40));
  it.each(Object.keys(HOSTILE))('%s: refused, or nothing of it but shapes', (name) => {
    const began = performance.now();
    const read = readSvg(HOSTILE[name]!, { outliner }); // a name of the table
    if (!('problem' in read)) {
      let n = 0;
      const layers = svgLayers(read, {
        name: 'Logo',
        start: freeMoment(0),
        end: freeMoment(1),
        newId: () => `n${n++}`,
      });
      for (const layer of layers) {
        expect(layerSchema.safeParse(layer)).toMatchObject({ success: true });
        // A name is text, and shown as text.
        expect(JSON.stringify({ ...layer, name: '' })).not.toMatch(ACTIVE);
      }
      expect(JSON.stringify(layers.map(({ tracks, content }) => [tracks, content]))).not.toMatch(
        /NaN|Infinity|null,null/,
      );
    }
    expect(performance.now() - began).toBeLessThan(10_000);
  });
  it.each([
    ['a script', 'scripts'],
    ['a handler on a shape', 'scripts'],
    ['foreign content', 'foreign content'],
    ['a picture from the network', 'embedded pictures'],
    ['a part of another file', 'parts of other files'],
    ['a style sheet from the network', '@import'],
    ['animation that sets an address', 'animation'],
    ['parts that use one another', 'parts that use themselves'],
  ])('%s is told as “%s”', (name, told) => {
    const read = readSvg(HOSTILE[name]!, { outliner }); // a name of the table
    expect('problem' in read ? [] : read.left).toContain(told);
  });
  it('nothing a piece holds becomes markup when it leaves', () => {
    const list = { width: 9, height: 9, background: '#000000', items: [] };
    const picture = (): string => '"><script>alert(1)</script>';
    const item = {
      kind: 'picture',
      layerId: 'x',
      source: { hash: 'h', frame: null },
      cornerRadius: 0,
      box: [0, 0, 9, 9],
      matrix: [1, 0, 0, 1, 0, 0],
      opacity: 1,
      blend: 'normal',
      fingerprint: '',
    } as const;
    expect(writeSvg({ ...list, items: [item] }, { picture }).svg).not.toContain('<script');
  });
});

describe('files that take long to match', () => {
  const timed = (text: string): number => {
    const before = process.cpuUsage();
    readSvg(text, { outliner });
    const { user, system } = process.cpuUsage(before);
    return (user + system) / 1e6;
  };
  it('do not: selectors of many levels within many levels', () => {
    const groups = 60;
    const style = `<style>.z ${'g '.repeat(38)}rect{fill:red}</style>`;
    expect(timed(svg(`${style}${'<g>'.repeat(groups)}${BOX}${'</g>'.repeat(groups)}`))).toBeLessThan(1);
  });
  it('do not: thousands of rules for thousands of shapes', () => {
    const rules = Array.from(
      { length: 4000 },
      (_, i) => `g g rect.c${i % 7}:not(.d${i}){fill:#${String(100 + (i % 900))}}`,
    ).join('');
    const shapes = Array.from({ length: 3900 }, (_, i) => `<rect class="c${i % 7}" width="9" height="9"/>`).join('');
    const text = svg(`<style>${rules}</style><g><g>${shapes}</g></g>`);
    expect(timed(text)).toBeLessThan(12);
    const read = readSvg(text, { outliner });
    if (!('problem' in read)) expect(read.left).toContain('style sheets of such complexity');
  });
  it('do not: variables that name variables', () => {
    const names = Array.from({ length: 60 }, (_, i) => `--v${i}:var(--v${i + 1}) var(--v${i + 1})`).join(';');
    expect(timed(svg(`<style>:root{${names}} rect{fill:var(--v0)}</style>${BOX}`))).toBeLessThan(1);
  });
});

describe('what is not had is told', () => {
  it.each([
    ['<rect width="9" height="9" style="clip-path:xywh(0 0 4px 4px)"/>', 'clips made of some shapes'],
    ['<rect width="9" height="9" style="filter:sepia(1)"/>', 'filters other than blurs and shadows'],
    ['<g style="isolation:isolate"><rect width="9" height="9"/></g>', 'isolated blending'],
    ['<text y="20" text-decoration="underline">a</text>', 'underlines'],
    ['<text y="20" dominant-baseline="middle">a</text>', 'other baselines'],
    ['<text y="20">a<tspan baseline-shift="super">b</tspan></text>', 'raised and lowered words'],
    ['<text y="20" textLength="90">a</text>', 'words of a given length'],
    ['<text y="20" style="word-spacing:4px">a b</text>', 'spacing of words'],
    [
      '<filter id="f"><feGaussianBlur stdDeviation="2 5"/></filter><rect width="9" height="9" filter="url(#f)"/>',
      'blurs of two widths',
    ],
    [
      '<radialGradient id="g" fr=".2"><stop/><stop offset="1" stop-color="red"/></radialGradient><rect width="9" height="9" fill="url(#g)"/>',
      'gradients that begin at a circle',
    ],
  ])('%s', (body, name) => {
    const read = readSvg(svg(`${body}${BOX}`), { outliner });
    expect('problem' in read ? [] : read.left).toContain(name);
  });
  it('entities that only name namespaces are put in, and prefixes that stand for SVG are', () => {
    const doctype = '<!DOCTYPE svg [<!ENTITY ns_svg "http://www.w3.org/2000/svg"><!ENTITY sea "#54c6c0">]>';
    const read = readSvg(
      `${doctype}<d:svg xmlns:d="&ns_svg;" width="9" height="9"><d:rect width="9" height="9" fill="&sea;"/></d:svg>`,
      { outliner },
    );
    expect(JSON.stringify(read)).toContain('#54c6c0');
  });
});
