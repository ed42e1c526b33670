/** The mark of Kite Week: a kite of four panels over the harbour's waves, its tail of three bows. */
export const LOGO_SVG = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 320">
  <title>Kite Week</title>
  <defs>
    <linearGradient id="dusk" x1="0" y1="0" x2="0" y2="1">
      <stop offset="0" stop-color="#ffb74a"/>
      <stop offset="0.55" stop-color="#ff6f59"/>
      <stop offset="1" stop-color="#8c3b5e"/>
    </linearGradient>
    <clipPath id="disc"><circle cx="120" cy="130" r="112"/></clipPath>
  </defs>
  <style>
    .sail { stroke: #11151b; stroke-width: 3; stroke-linejoin: round }
    .line { fill: none; stroke: #eee9df; stroke-width: 5; stroke-linecap: round }
  </style>
  <g id="harbour" clip-path="url(#disc)">
    <rect id="sky" x="8" y="18" width="224" height="224" fill="#1d3042"/>
    <path id="far-wave" fill="#2b5f6b" d="M0 176c30-16 50-16 80 0s50 16 80 0 50-16 80 0v90H0z"/>
    <path id="near-wave" fill="#54c6c0" d="M0 204c24-14 44-14 68 0s44 14 68 0 44-14 68 0 24 8 36 0v60H0z"/>
  </g>
  <g id="kite" transform="rotate(14 120 110)">
    <path id="left-panel" class="sail" fill="url(#dusk)" d="M120 10L48 96l72 14z"/>
    <path id="right-panel" class="sail" fill="#ffb74a" d="M120 10l72 86-72 14z"/>
    <path id="left-tip" class="sail" fill="#8c3b5e" d="M48 96l72 14v96z"/>
    <path id="right-tip" class="sail" fill="#ff6f59" d="M192 96l-72 14v96z"/>
  </g>
  <path id="string" class="line" d="M97 203c-24 30 38 34 20 62s-44 18-30 44"/>
  <g id="bows" fill="#ff6f59">
    <path d="M92 230l-16-8v16zl16-8v16z"/>
    <path d="M121 250l-16-8v16zl16-8v16z"/>
    <path d="M98 284l-16-8v16zl16-8v16z"/>
  </g>
</svg>
`;
