import { alphaOf, channelsOf, cssColour } from '../colour';
import type { Colour } from '../colour';
import { MOST_ROLES, roleName } from '../piece';
import { FONT_FAMILIES, FONT_FAMILY_IDS } from '../text';

/**
 * Colours and fonts as a file of design tokens.
 * @see Design Tokens Format Module 2025.10, W3C Community Group: groups and tokens, `$type`, `$value`, `color`, `fontFamily`.
 */
export interface Tokens {
  /** By role. */
  readonly colours: Readonly<Record<string, Colour>>;
  /** Families by role. */
  readonly fonts: Readonly<Record<string, string>>;
}

/** Longest file in UTF-16 units and how deep groups may lie. */
export const MAX_TOKENS_LENGTH = 1_000_000;
const MAX_DEPTH = 12;

export function writeTokens({ colours, fonts }: Tokens): string {
  const round = (value: number): number => Math.round(value * 10_000) / 10_000;
  const colour = Object.fromEntries(
    Object.entries(colours).map(([role, value]) => [
      role,
      {
        $type: 'color',
        $value: {
          colorSpace: 'srgb',
          components: channelsOf(value)
            .slice(0, 3)
            .map((byte) => round(byte / 255)),
          alpha: round(alphaOf(value)),
          hex: value.slice(0, 7),
        },
      },
    ]),
  );
  const font = Object.fromEntries(
    Object.entries(fonts).map(([role, family]) => [
      role,
      { $type: 'fontFamily', $value: FONT_FAMILY_IDS.some((id) => id === family) ? labelOf(family) : family },
    ]),
  );
  return `${JSON.stringify({ colour, font }, null, 2)}\n`;
}

const labelOf = (family: string): string => FONT_FAMILIES[family as keyof typeof FONT_FAMILIES].label; // looked up before

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function colourOf(value: unknown): Colour | null {
  if (typeof value === 'string') return cssColour(value);
  if (!isRecord(value)) return null;
  const { components, alpha, hex, colorSpace } = value;
  if (colorSpace === 'srgb' && Array.isArray(components) && components.length === 3) {
    const numbers = components.map((c) => (typeof c === 'number' ? Math.max(0, Math.min(1, c)) : 0));
    const bytes = [...numbers, typeof alpha === 'number' && alpha < 1 ? Math.max(0, alpha) : -1];
    return `#${bytes
      .flatMap((b) =>
        b < 0
          ? []
          : [
              Math.round(b * 255)
                .toString(16)
                .padStart(2, '0'),
            ],
      )
      .join('')}`;
  }
  return typeof hex === 'string' ? cssColour(hex) : null;
}

function familyOf(value: unknown): string | null {
  const names = (Array.isArray(value) ? value : [value]).filter((name) => typeof name === 'string');
  const known = names
    .map((name) => FONT_FAMILY_IDS.find((id) => FONT_FAMILIES[id].label.toLowerCase() === name.toLowerCase()))
    .find((id) => id !== undefined);
  return known ?? names[0]?.slice(0, 120) ?? null;
}

export type TokensProblem = 'not-json' | 'too-large' | 'empty';

/** Reads the colours and font families of a file; other tokens are passed over. References (`{group.name}`) are followed. */
export function readTokens(text: string): Tokens | { readonly problem: TokensProblem } {
  if (text.length > MAX_TOKENS_LENGTH) return { problem: 'too-large' };
  let root: unknown;
  try {
    root = JSON.parse(text);
  } catch {
    return { problem: 'not-json' };
  }
  const found = new Map<string, { type: unknown; value: unknown; name: string }>();
  const walk = (node: unknown, path: readonly string[], type: unknown): void => {
    if (!isRecord(node) || path.length > MAX_DEPTH) return;
    const own = node.$type ?? type;
    if ('$value' in node) found.set(path.join('.'), { type: own, value: node.$value, name: path.at(-1) ?? '' });
    for (const [name, child] of Object.entries(node)) if (!name.startsWith('$')) walk(child, [...path, name], own);
  };
  walk(root, [], undefined);
  const valueOf = (value: unknown, steps = 0): unknown => {
    const target = typeof value === 'string' ? /^\{(.+)\}$/.exec(value)?.[1] : undefined;
    return target === undefined || steps > MAX_DEPTH ? value : valueOf(found.get(target)?.value, steps + 1);
  };
  const colours: Record<string, Colour> = {};
  const fonts: Record<string, string> = {};
  for (const { type, value, name } of found.values()) {
    const role = roleName(name);
    if (role === '') continue;
    const colour = type === 'color' ? colourOf(valueOf(value)) : null;
    const family = type === 'fontFamily' ? familyOf(valueOf(value)) : null;
    if (colour !== null && Object.keys(colours).length < MOST_ROLES) colours[role] ??= colour;
    if (family !== null && Object.keys(fonts).length < MOST_ROLES) fonts[role] ??= family;
  }
  return Object.keys(colours).length + Object.keys(fonts).length === 0 ? { problem: 'empty' } : { colours, fonts };
}
