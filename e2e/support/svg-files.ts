/** Drawings that cover the shapes of static SVG: each by its name, in a box of 200 by 200 unless it says otherwise. */

const svg = (body: string, attributes = 'width="200" height="200" viewBox="0 0 200 200"'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${body}</svg>`;

const KITE = 'M100 10L180 80L100 190L20 80Z';
const STAR = 'M100 10L150 180L15 70H185L50 180Z';
const linear = (more: string, stops: string): string =>
  `<defs><linearGradient id="g" ${more}>${stops}</linearGradient></defs>`;
const radial = (more: string, stops: string): string =>
  `<defs><radialGradient id="g" ${more}>${stops}</radialGradient></defs>`;
const TWO = '<stop offset="0" stop-color="#ffb74a"/><stop offset="1" stop-color="#143749"/>';
const FOUR =
  '<stop offset="0" stop-color="#ff6f59"/><stop offset=".3" stop-color="#ffb74a"/><stop offset="60%" stop-color="#54c6c0"/><stop offset="1" stop-color="#143749"/>';
const STRIPES = Array.from(
  { length: 5 },
  (_, i) => `<rect x="0" y="${i * 40}" width="200" height="20" fill="#54c6c0"/>`,
).join('');
const FILLED = '<rect x="20" y="20" width="160" height="160" fill="url(#g)"/>';

export const SVG_FILES: Readonly<Record<string, string>> = {
  rectangle: svg('<rect x="20" y="30" width="120" height="90" fill="#ff6f59"/>'),
  'rectangle with round corners': svg('<rect x="20" y="30" width="140" height="100" rx="30" fill="#54c6c0"/>'),
  'rectangle with uneven corners': svg('<rect x="20" y="30" width="140" height="100" rx="60" ry="20" fill="#54c6c0"/>'),
  circle: svg('<circle cx="100" cy="100" r="80" fill="#ffb74a"/>'),
  ellipse: svg('<ellipse cx="100" cy="90" rx="90" ry="40" fill="#143749"/>'),
  line: svg('<line x1="20" y1="20" x2="180" y2="150" stroke="#ff6f59" stroke-width="12"/>'),
  polyline: svg('<polyline points="20,20 100,180 180,20 180,180" fill="none" stroke="#143749" stroke-width="9"/>'),
  polygon: svg('<polygon points="100 10 190 180 10 180" fill="#54c6c0" stroke="#143749" stroke-width="6"/>'),
  'path of all straight commands': svg('<path d="M10 10 h80 v40 H50 V120 l60 30 L180 20 z" fill="#ff6f59"/>'),
  'path of curves': svg(
    '<path d="M10 100 C40 10 80 10 100 100 S160 190 190 100 Q150 20 100 60 T20 160" fill="#ffb74a"/>',
  ),
  'path of relative curves': svg(
    '<path d="m10 100 c30-90 70-90 90 0 s60 90 90 0 q-40-80-90-40 t-80 100" fill="#54c6c0"/>',
  ),
  arcs: svg(
    '<path d="M30 100A70 70 0 0 1 170 100" fill="none" stroke="#143749" stroke-width="8"/><path d="M30 110a70 40 30 1 0 120-20z" fill="#ff6f59"/>',
  ),
  'arcs of flags without spaces': svg('<path d="M40 100a60 60 0 01120 0a60 30 0 11-120 0z" fill="#54c6c0"/>'),
  'numbers without spaces': svg('<path d="M10.5.5L190-.5 180.25 190.75-5e0 1.8E2z" fill="#ffb74a"/>'),
  'several contours': svg(`<path d="${KITE}M70 80h60v60h-60z" fill="#143749"/>`),
  'even-odd': svg(`<path d="${STAR}" fill="#ff6f59" fill-rule="evenodd"/>`),
  'non-zero': svg(`<path d="${STAR}" fill="#ff6f59" fill-rule="nonzero"/>`),
  'a path up to its mistake': svg('<path d="M20 20L180 20L100 180L oops" fill="#54c6c0"/>'),
  caps: svg(
    '<g stroke="#143749" stroke-width="24" fill="none"><path d="M40 40H160" stroke-linecap="butt"/><path d="M40 100H160" stroke-linecap="round"/><path d="M40 160H160" stroke-linecap="square"/></g>',
  ),
  joins: svg(
    '<g stroke="#143749" stroke-width="18" fill="none"><path d="M20 60L60 20L100 60" stroke-linejoin="miter"/><path d="M90 120L130 80L170 120" stroke-linejoin="round"/><path d="M20 180L60 140L100 180" stroke-linejoin="bevel"/></g>',
  ),
  'miter limit': svg(
    '<g stroke="#ff6f59" stroke-width="14" fill="none"><path d="M20 80L40 20L60 80" stroke-miterlimit="2"/><path d="M120 80L140 20L160 80" stroke-miterlimit="8"/><path d="M60 180L70 110L80 180"/></g>',
  ),
  dashes: svg(
    '<g stroke="#143749" stroke-width="8" fill="none"><path d="M10 30H190" stroke-dasharray="20 10"/><path d="M10 70H190" stroke-dasharray="20 10 5"/><path d="M10 110H190" stroke-dasharray="1 16" stroke-linecap="round"/><circle cx="100" cy="155" r="30" stroke-dasharray="12,6" stroke-dashoffset="9"/></g>',
  ),
  'stroke over fill': svg(`<path d="${KITE}" fill="#ffb74a" stroke="#143749" stroke-width="16"/>`),
  'stroke under fill': svg(
    `<path d="${KITE}" fill="#ffb74a" stroke="#143749" stroke-width="24" paint-order="stroke"/>`,
  ),
  'see-through fill and stroke': svg(
    `${STRIPES}<path d="${KITE}" fill="#ff6f59" fill-opacity=".5" stroke="#143749" stroke-width="20" stroke-opacity="40%"/>`,
  ),
  'opacity of a shape': svg(
    `${STRIPES}<path d="${KITE}" fill="#ff6f59" stroke="#143749" stroke-width="20" opacity=".5"/>`,
  ),
  'opacity of a group': svg(
    `${STRIPES}<g opacity=".5"><circle cx="80" cy="100" r="60" fill="#ff6f59"/><circle cx="120" cy="100" r="60" fill="#143749"/></g>`,
  ),
  'groups moved and turned': svg(
    '<g transform="translate(100 100)"><g transform="rotate(30)"><rect x="-60" y="-20" width="120" height="40" fill="#54c6c0"/></g><g transform="scale(.5) rotate(-45 20 20)"><rect x="-60" y="-20" width="120" height="40" fill="#ff6f59"/></g></g>',
  ),
  'slant and matrix': svg(
    '<rect x="20" y="20" width="80" height="60" fill="#ffb74a" transform="skewX(20)"/><rect x="20" y="100" width="80" height="60" fill="#143749" transform="matrix(1 .2 -.3 .9 50 -10)"/><circle cx="30" cy="150" r="20" fill="#ff6f59" transform="skewY(-10)"/>',
  ),
  'a stroke stretched': svg(
    '<g transform="translate(20 20) scale(2.6 .8)"><circle cx="30" cy="90" r="26" fill="#ffb74a" stroke="#143749" stroke-width="12"/></g>',
  ),
  'a stroke slanted': svg(
    '<g transform="translate(60 20) skewX(30)"><rect x="-40" y="20" width="70" height="110" fill="none" stroke="#ff6f59" stroke-width="14" stroke-linejoin="round"/></g>',
  ),
  'a stroke that does not grow': svg(
    '<g transform="scale(4)"><path d="M5 5L45 20L20 45Z" fill="#54c6c0" stroke="#143749" stroke-width="6" vector-effect="non-scaling-stroke"/></g>',
  ),
  mirrored: svg('<g transform="translate(200 0) scale(-1 1)"><path d="M20 20H120V60H60V180H20Z" fill="#143749"/></g>'),
  'Linear gradient': svg(linear('', TWO) + FILLED),
  'linear gradient of four stops, down': svg(linear('x1="0" y1="0" x2="0" y2="1"', FOUR) + FILLED),
  'linear gradient at a slant on a long box': svg(
    `${linear('x1="0" y1="0" x2="1" y2="1"', FOUR)}<rect x="10" y="60" width="180" height="60" fill="url(#g)"/>`,
  ),
  'linear gradient in user units': svg(
    linear('gradientUnits="userSpaceOnUse" x1="50" y1="50" x2="150" y2="120"', TWO) + FILLED,
  ),
  'linear gradient turned by a matrix': svg(
    linear('gradientTransform="rotate(30 .5 .5) scale(.7 1.4)"', FOUR) + FILLED,
  ),
  'linear gradient that runs back': svg(linear('x1=".4" x2=".55" spreadMethod="reflect"', FOUR) + FILLED),
  'linear gradient that begins anew': svg(linear('x1=".4" x2=".6" y2=".1" spreadMethod="repeat"', TWO) + FILLED),
  'linear gradient with hard edges': svg(
    linear(
      '',
      '<stop offset=".3" stop-color="#ff6f59"/><stop offset=".3" stop-color="#143749"/><stop offset=".7" stop-color="#143749"/><stop offset=".7" stop-color="#54c6c0"/>',
    ) + FILLED,
  ),
  'linear gradient into nothing': svg(
    `${STRIPES}${linear('', '<stop offset="0" stop-color="#ff6f59"/><stop offset="1" stop-color="#143749" stop-opacity="0"/>')}${FILLED}`,
  ),
  'linear gradient taken over from another': svg(
    `<defs><linearGradient id="base">${FOUR}</linearGradient><linearGradient id="g" xlink:href="#base" x1="1" x2="0"/></defs>${FILLED}`,
  ),
  'Radial gradient': svg(radial('', FOUR) + FILLED),
  'radial gradient with a focus': svg(radial('fx=".3" fy=".35"', FOUR) + FILLED),
  'radial gradient on a long box': svg(
    `${radial('', FOUR)}<ellipse cx="100" cy="100" rx="95" ry="40" fill="url(#g)"/>`,
  ),
  'radial gradient in user units, turned and stretched': svg(
    radial(
      'gradientUnits="userSpaceOnUse" cx="0" cy="0" r="60" gradientTransform="translate(100 100) rotate(30) scale(1.4 .6)"',
      FOUR,
    ) + FILLED,
  ),
  'radial gradient that runs back': svg(radial('r=".2" spreadMethod="reflect"', TWO) + FILLED),
  'radial gradient that begins anew, with a focus': svg(radial('r=".25" fx=".42" spreadMethod="repeat"', TWO) + FILLED),
  'gradient along a stroke': svg(
    `${linear('', FOUR)}<circle cx="100" cy="100" r="70" fill="none" stroke="url(#g)" stroke-width="26"/>`,
  ),
  'radial gradient along a stroke on a long box': svg(
    `${radial('', FOUR)}<ellipse cx="100" cy="100" rx="85" ry="40" fill="none" stroke="url(#g)" stroke-width="20"/>`,
  ),
  'gradient with see-through paint': svg(
    `${STRIPES}${linear('', FOUR)}<rect x="20" y="20" width="160" height="160" fill="url(#g)" fill-opacity=".6"/>`,
  ),
  'a paint that is not there': svg('<rect x="20" y="20" width="160" height="160" fill="url(#nothing) #54c6c0"/>'),
  'clip path': svg(
    '<defs><clipPath id="c"><circle cx="100" cy="100" r="70"/></clipPath></defs><rect width="200" height="200" fill="#ff6f59" clip-path="url(#c)"/>',
  ),
  'clip path of several shapes on a group': svg(
    `<defs><clipPath id="c"><circle cx="70" cy="100" r="50"/><rect x="110" y="40" width="60" height="120"/></clipPath></defs><g clip-path="url(#c)"><rect width="200" height="200" fill="#143749"/>${STRIPES}</g>`,
  ),
  'clip path in shares of the box': svg(
    '<defs><clipPath id="c" clipPathUnits="objectBoundingBox"><ellipse cx=".5" cy=".5" rx=".5" ry=".3"/></clipPath></defs><rect x="30" y="20" width="140" height="160" fill="#ffb74a" clip-path="url(#c)"/>',
  ),
  'clip path with a rule': svg(
    `<defs><clipPath id="c"><path d="${STAR}" clip-rule="evenodd"/></clipPath></defs><rect width="200" height="200" fill="#143749" clip-path="url(#c)"/>`,
  ),
  'clip path of a clip path, moved': svg(
    '<defs><clipPath id="a"><rect x="40" y="40" width="120" height="60"/></clipPath><clipPath id="c" clip-path="url(#a)"><circle cx="100" cy="100" r="60"/></clipPath></defs><g transform="translate(10 20) rotate(5)"><rect width="200" height="200" fill="#ff6f59" clip-path="url(#c)"/></g>',
  ),
  'mask by brightness': svg(
    `<defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#000"/></linearGradient><mask id="m"><rect width="200" height="200" fill="url(#g)"/></mask></defs>${STRIPES}<path d="${KITE}" fill="#ff6f59" mask="url(#m)"/>`,
  ),
  'mask on a group, in shares of the box': svg(
    '<defs><mask id="m" maskContentUnits="objectBoundingBox"><rect width="1" height="1" fill="#fff"/><circle cx=".5" cy=".5" r=".3" fill="#000"/></mask></defs><g mask="url(#m)"><rect x="30" y="30" width="140" height="140" fill="#54c6c0"/><rect x="60" y="30" width="40" height="140" fill="#143749"/></g>',
  ),
  'mask by opacity': svg(
    '<defs><mask id="m" mask-type="alpha"><circle cx="100" cy="100" r="60" fill="#000" fill-opacity=".6"/></mask></defs><rect width="200" height="200" fill="#ff6f59" mask="url(#m)"/>',
  ),
  use: svg(
    '<defs><path id="k" d="M0 0L30 20L0 70L-30 20Z"/></defs><use href="#k" x="60" y="30" fill="#ff6f59"/><use xlink:href="#k" transform="translate(130 120) rotate(40)" fill="#54c6c0"/>',
  ),
  symbol: svg(
    '<symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="5" fill="#ffb74a"/><rect x="4" y="0" width="2" height="14" fill="#143749"/></symbol><use href="#s" x="20" y="20" width="80" height="80"/><use href="#s" x="110" y="60" width="80" height="40"/>',
  ),
  'style sheet': svg(
    '<style>rect { fill: #143749 } .warm { fill: #ff6f59 } #own { fill: #54c6c0 } g > .warm { stroke: #ffb74a; stroke-width: 8 } g circle[r="20"] { fill: #ffb74a }</style><g><rect x="10" y="10" width="60" height="60"/><rect class="warm" x="100" y="20" width="60" height="60"/><rect id="own" class="warm big" x="20" y="110" width="60" height="60"/><circle cx="140" cy="140" r="20"/></g>',
  ),
  'own style before style sheet before attributes': svg(
    '<style><![CDATA[ .a { fill: #54c6c0 } .b { fill: #ff6f59 !important } ]]></style><rect class="a" x="10" y="10" width="80" height="80" fill="#000"/><rect class="a" x="110" y="10" width="80" height="80" style="fill:#ffb74a"/><rect class="b" x="10" y="110" width="80" height="80" style="fill:#ffb74a"/>',
  ),
  'colours of all kinds': svg(
    '<g color="#54c6c0"><rect width="60" height="60" fill="currentColor"/><rect x="70" width="60" height="60" fill="rgb(255, 111, 89)"/><rect x="140" width="60" height="60" fill="tomato"/><rect y="70" width="60" height="60" fill="hsl(36 100% 65%)"/><rect x="70" y="70" width="60" height="60" fill="rgba(20,55,73,.5)"/><rect x="140" y="70" width="60" height="60" fill="#fb4"/><rect y="140" width="60" height="60" fill="RGB(10%,40%,60%)"/></g>',
  ),
  'inherited and hidden': svg(
    '<g fill="#ff6f59" stroke="#143749"><rect x="10" y="10" width="60" height="60" stroke-width="4"/><g visibility="hidden"><rect x="100" y="10" width="60" height="60"/><rect x="100" y="100" width="60" height="60" visibility="visible" fill="inherit"/></g><rect x="10" y="100" width="60" height="60" display="none"/></g>',
  ),
  'view box kept, in the middle': svg(
    '<circle cx="50" cy="50" r="50" fill="#54c6c0"/>',
    'width="200" height="120" viewBox="0 0 100 100"',
  ),
  'view box at the end': svg(
    '<circle cx="50" cy="50" r="50" fill="#54c6c0"/>',
    'width="200" height="120" viewBox="0 0 100 100" preserveAspectRatio="xMaxYMid meet"',
  ),
  'view box that covers': svg(
    '<circle cx="50" cy="50" r="50" fill="#54c6c0"/><rect width="20" height="20" fill="#143749"/>',
    'width="200" height="120" viewBox="0 0 100 100" preserveAspectRatio="xMinYMax slice"',
  ),
  'view box stretched': svg(
    '<circle cx="50" cy="50" r="40" fill="#ffb74a" stroke="#143749" stroke-width="10"/>',
    'width="200" height="120" viewBox="0 0 100 100" preserveAspectRatio="none"',
  ),
  'view box with an origin of its own': svg(
    '<rect x="-40" y="-40" width="80" height="80" fill="#ff6f59"/>',
    'width="200" height="200" viewBox="-50 -50 100 100"',
  ),
  'what lies outside is cut': svg(
    '<circle cx="0" cy="0" r="120" fill="#143749"/><circle cx="200" cy="200" r="90" fill="#ff6f59"/>',
  ),
  'an svg within': svg(
    '<svg x="40" y="40" width="120" height="60" viewBox="0 0 10 10"><circle cx="5" cy="5" r="6" fill="#54c6c0"/></svg>',
  ),
  'lengths with units': svg(
    '<rect x="10%" y="5mm" width="1in" height="50pt" fill="#ffb74a" stroke="#143749" stroke-width="1mm"/>',
  ),
  'blend modes': svg(
    `${STRIPES}<circle cx="80" cy="90" r="60" fill="#ff6f59" style="mix-blend-mode:multiply"/><circle cx="130" cy="120" r="50" fill="#ffb74a" style="mix-blend-mode:screen"/>`,
  ),
  'a soft edge': svg(
    '<filter id="f" x="-50%" y="-50%" width="200%" height="200%" color-interpolation-filters="sRGB"><feGaussianBlur stdDeviation="8"/></filter><circle cx="100" cy="100" r="50" fill="#ff6f59" filter="url(#f)"/>',
  ),
  words: svg(
    '<text x="10" y="80" font-family="Bricolage Grotesque" font-weight="700" font-size="52" fill="#143749">Kites</text><text x="190" y="150" font-family="Literata" font-size="30" text-anchor="end" fill="#ff6f59">nine <tspan font-weight="700" fill="#54c6c0">days</tspan></text>',
  ),
  'words in the middle, outlined and turned': svg(
    '<text transform="translate(100 110) rotate(-12)" text-anchor="middle" font-family="Unbounded, serif" font-size="34" letter-spacing="2" fill="#ffb74a" stroke="#143749" stroke-width="2">Lumo</text>',
  ),
  'selectors of place and of what is not': svg(
    '<style>rect:first-child{fill:#ff6f59} rect:nth-child(2n){fill:#54c6c0} rect:last-child{fill:#143749} rect:not(.in):nth-child(3){fill:#ffb74a} rect+circle{fill:#143749} rect~path{fill:#ff6f59}</style><g><rect width="40" height="90"/><rect x="45" width="40" height="90"/><rect x="90" width="40" height="90"/><rect class="in" x="135" width="40" height="90"/></g><g><rect y="100" width="40" height="40"/><circle cx="80" cy="130" r="25"/><path d="M120 100h60v60z"/></g>',
  ),
  'a style sheet for screens': svg(
    '<style>@media screen{rect{fill:#54c6c0}} @media all{rect{stroke:#143749;stroke-width:12}}</style><rect x="30" y="30" width="140" height="140"/>',
  ),
  'variables in style sheets': svg(
    '<style>:root{--sea:#54c6c0;--edge:var(--none,#143749)} rect{fill:var(--sea);stroke:var(--edge);stroke-width:var(--missing,14)} circle{fill:var(--nothing)}</style><rect x="30" y="30" width="140" height="140"/><circle cx="100" cy="100" r="30"/>',
  ),
  'colours of later CSS, and one that is none': svg(
    '<g fill="#143749"><rect width="60" height="180" x="10" y="10" style="fill:oklch(0.7 0.15 40)"/><rect width="50" height="180" x="75" y="10" fill="hsl(174deg 50% 55% / .8)"/><rect width="60" height="180" x="130" y="10" fill="no-colour"/></g>',
  ),
  'angles with units, origins and boxes of transforms': svg(
    '<style>.a{transform:rotate(.1turn);transform-origin:50% 50%} .b{transform:rotate(.5rad) scale(80%);transform-box:fill-box;transform-origin:center} .c{transform:translate(10%,20px) skewX(20grad)}</style><rect class="a" x="60" y="20" width="80" height="30" fill="#ff6f59"/><rect class="b" x="20" y="120" width="60" height="50" fill="#54c6c0"/><rect class="c" x="90" y="100" width="60" height="50" fill="#143749"/>',
  ),
  'geometry in style sheets': svg(
    '<style>rect{x:20px;y:10%;width:60px;height:120px;rx:12px} circle{cx:130px;cy:100px;r:45px} path{d:path("M100 150L180 150L140 195Z")}</style><rect fill="#ff6f59"/><circle fill="#54c6c0"/><path fill="#143749"/>',
  ),
  'dashes on a path of a given length': svg(
    '<path d="M20 60C80 -20 120 140 180 60" pathLength="10" stroke-dasharray="1 1" stroke-dashoffset=".5" fill="none" stroke="#143749" stroke-width="10"/><circle cx="100" cy="140" r="40" pathLength="8" stroke-dasharray="1" fill="none" stroke="#ff6f59" stroke-width="12"/>',
  ),
  'dots of no length': svg(
    '<g stroke="#143749" stroke-width="30" fill="none"><path d="M50 50h0M100 50L100 50" stroke-linecap="round"/><path d="M50 130h0M110 130h0" stroke-linecap="square"/></g>',
  ),
  'a choice by language': svg(
    '<switch><rect systemLanguage="xx" width="200" height="200" fill="#ff6f59"/><circle cx="100" cy="100" r="70" fill="#54c6c0"/><rect width="200" height="200" fill="#ffb74a"/></switch>',
  ),
  'font at once, shares of sizes and capitals': svg(
    '<style>text{font:700 40px Unbounded} .half{font-size:50%} .caps{text-transform:uppercase}</style><text x="10" y="60">Kite<tspan class="half"> half</tspan></text><text x="10" y="130" class="caps half">wind</text><text x="10" y="180" style="font-size:2em" font-size="20">big</text>',
  ),
  'a blur as a function': svg('<rect x="50" y="50" width="100" height="100" fill="#ff6f59" style="filter:blur(6px)"/>'),
  'a drop shadow of its own step': svg(
    '<filter id="f" x="-50%" y="-50%" width="200%" height="200%"><feDropShadow dx="8" dy="12" stdDeviation="5" flood-color="#143749" flood-opacity=".6"/></filter><g transform="rotate(10 100 100)"><rect x="60" y="50" width="80" height="90" fill="#ff6f59" filter="url(#f)"/></g>',
  ),
  'a drop shadow step by step': svg(
    '<filter id="f" x="-20" y="-20" width="240" height="240" filterUnits="userSpaceOnUse" color-interpolation-filters="sRGB"><feFlood flood-opacity="0" result="BackgroundImageFix"/><feColorMatrix in="SourceAlpha" type="matrix" values="0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 0 127 0" result="hardAlpha"/><feOffset dx="-6" dy="9"/><feGaussianBlur stdDeviation="4"/><feComposite in2="hardAlpha" operator="out"/><feColorMatrix type="matrix" values="0 0 0 0 0.08 0 0 0 0 0.2 0 0 0 0 0.6 0 0 0 0.5 0"/><feBlend mode="normal" in2="BackgroundImageFix" result="effect1"/><feBlend mode="normal" in="SourceGraphic" in2="effect1" result="shape"/></filter><g filter="url(#f)"><circle cx="80" cy="90" r="45" fill="#54c6c0"/><rect x="100" y="90" width="60" height="60" fill="#ffb74a"/></g>',
  ),
  'a drop shadow as a function, on a faded group': svg(
    '<g opacity=".7" style="filter:drop-shadow(6px 8px 4px rgb(20 55 73 / .8))"><circle cx="80" cy="90" r="45" fill="#54c6c0"/><path d="M100 60l70 60-60 40z" fill="none" stroke="#ff6f59" stroke-width="10"/></g>',
  ),
  'clips made of basic shapes': svg(
    '<rect x="10" y="10" width="80" height="80" fill="#ff6f59" style="clip-path:circle(40%)"/><rect x="110" y="10" width="80" height="80" fill="#54c6c0" style="clip-path:polygon(50% 0,100% 50%,50% 100%,0 50%)"/><g style="clip-path:inset(10% 20% round 12px)"><rect x="10" y="110" width="80" height="80" fill="#143749"/></g><rect x="110" y="110" width="80" height="80" fill="#ffb74a" style="clip-path:ellipse(closest-side farthest-side at 30% 40%)"/>',
  ),
  'clips by boxes of strokes and of the view': svg(
    '<rect x="30" y="30" width="60" height="60" fill="#ff6f59" stroke="#143749" stroke-width="20" style="clip-path:circle(50%)"/><rect x="110" y="30" width="60" height="60" fill="#54c6c0" stroke="#143749" stroke-width="20" style="clip-path:circle(50%) fill-box"/><rect x="20" y="110" width="160" height="80" fill="#ffb74a" style="clip-path:view-box circle(60px at 100px 150px)"/>',
  ),
};
