import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import * as z from 'zod';
import { EFFECT_KINDS, LAYER_KINDS, PIECE_VERSION, kindProperties, pieceSchema } from '@core/piece';
import type { LayerKind } from '@core/piece';
import { MIGRATIONS } from './migrations';

/**
 * The shape of documents is kept beside the fixtures. Whoever changes it makes a new version of it: raises
 * PIECE_VERSION, writes the migration, keeps pieces of the version before as fixtures, and has the new shape written with
 * `UPDATE_SHAPE=1`. New rows in the tables of kinds are no change: older documents know nothing of them.
 */
const FILE = `tests/fixtures/shape-${PIECE_VERSION}.json`;

/** Fields by name, each as a short sum of its schema. */
interface Shape {
  piece: Record<string, string>;
  kinds: Record<string, string>;
}

type Schema = {
  properties?: Record<string, Schema>;
  items?: Schema;
  oneOf?: Schema[];
  anyOf?: Schema[];
  const?: unknown;
};

/** What people call things is no part of the shape. */
const withoutLabels = (key: string, value: unknown): unknown => (key === 'label' ? undefined : value);
const sumOf = (value: unknown): string =>
  createHash('sha256')
    .update(JSON.stringify(value, withoutLabels) ?? '')
    .digest('hex')
    .slice(0, 16);
const sums = (fields: object, prefix = ''): Record<string, string> =>
  Object.fromEntries(Object.entries(fields).map(([name, field]) => [prefix + name, sumOf(field)]));

function currentShape(): Shape {
  const schema = z.toJSONSchema(pieceSchema, { io: 'input', unrepresentable: 'any' }) as Schema;
  const { layers, ...fields } = schema.properties!;
  const options = layers!.items!.oneOf ?? layers!.items!.anyOf ?? [];
  const kinds = Object.fromEntries(
    options.map((option) => {
      const kind = String(option.properties!.kind!.const) as LayerKind;
      return [kind, { content: option.properties!.content, begins: kindProperties(kind) }];
    }),
  );
  const { kind: _kind, content: _content, ...base } = options[0]!.properties!;
  // Rows are compared by themselves: the list of effects may grow.
  delete base.effects!.items!.properties!.kind;
  return {
    piece: { ...sums(fields), ...sums(base, 'layer.') },
    kinds: { ...sums(kinds), ...sums(EFFECT_KINDS, 'effect ') },
  };
}

describe('the shape of documents', () => {
  if (process.env.UPDATE_SHAPE || !existsSync(FILE))
    writeFileSync(FILE, `${JSON.stringify(currentShape(), null, 1)}\n`);
  const kept = JSON.parse(readFileSync(FILE, 'utf8')) as Shape;
  it('is that of its version: a change needs a new version, a migration and fixtures', () => {
    expect(currentShape().piece).toEqual(kept.piece);
  });
  it('keeps every row of its tables as it was', () => {
    const { kinds } = currentShape();
    for (const [kind, row] of Object.entries(kept.kinds)) expect([kind, kinds[kind]]).toEqual([kind, row]);
  });
  it('has a way from every version before, and fixtures of it', () => {
    for (let version = 1; version < PIECE_VERSION; version++) {
      expect(MIGRATIONS[version]).toBeDefined();
      expect(existsSync(`tests/fixtures/version-${version}/every-field.json`)).toBe(true);
    }
    expect(Object.keys(LAYER_KINDS).length).toBeGreaterThan(5);
  });
});
