import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

/**
 * Lists all texts of the interface by feature in docs/TEXTS.md, so that they can be read from top to bottom.
 * `node scripts/texts.mjs --check` fails where the page is not what the texts are now.
 */
const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const PAGE = join(root, 'docs/TEXTS.md');

/** Files of wording, and tables whose labels are seen. */
const WORDING = /^(web\/src\/.*\/words|web\/src\/features\/desk\/help-pages|server\/platform\/errors)\.ts$/;
const TABLES =
  /^core\/(checks\/.*|formats\/export-.*|motion\/(easing|gesture-parts|gestures-accent|gestures-in-out)|piece\/document\/(effect-kinds|layer-kinds|paint-schema|properties|sheet|mask-values)|piece\/edits\/.*-edits|piece\/times\/spread|text\/reading-time)\.ts$/;

const SOURCES = ['core', 'server', 'web/src']
  .flatMap((folder) => readdirSync(join(root, folder), { recursive: true }).map((file) => `${folder}/${file}`))
  .filter((file) => !file.includes('node_modules') && !file.includes('.test.'))
  .toSorted();
const files = (pattern) => SOURCES.filter((file) => pattern.test(file));

/** A template as people see it: what is put in stands in braces. */
const shown = (node) =>
  ts.isTemplateExpression(node)
    ? [
        node.head.text,
        ...node.templateSpans.map(({ expression, literal }) => `{${expression.getText()}}${literal.text}`),
      ].join('')
    : node.text;

const isSentence = (text) => /\p{L}{2}/u.test(text) && /[\s]|^\p{Lu}/u.test(text.trim());
const SEEN = new Set(['label', 'hint', 'feel', 'text', 'title', 'help']);

/** Texts of a file; of tables only what is a label, a hint, or the name of an edit or a check. */
function textsOf(file, isWording) {
  const source = ts.createSourceFile(file, readFileSync(join(root, file), 'utf8'), ts.ScriptTarget.Latest, true);
  const found = [];
  const visit = (node) => {
    if (ts.isImportDeclaration(node)) return;
    const isText =
      ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) || ts.isTemplateExpression(node);
    if (isText) {
      const { parent } = node;
      const name = ts.isPropertyAssignment(parent) && parent.initializer === node ? parent.name.getText() : null;
      const isCalled =
        ts.isCallExpression(parent) &&
        /^(defineEdit|finding|px|share|count|angle|colour)$/.test(parent.expression.getText());
      const text = shown(node);
      // What is compared with something is no text, and neither is a type.
      const isPlain = text.trim() !== '' && !ts.isBinaryExpression(parent) && !ts.isLiteralTypeNode(parent);
      if (isWording ? isPlain : (SEEN.has(name) || isCalled) && isSentence(text)) found.push(text.trim());
      if (ts.isTemplateExpression(node)) return;
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return [...new Set(found)];
}

const feature = (file) => {
  const folder = dirname(file).replace(/^web\/src\/(features\/)?/, '');
  return basename(file) === 'words.ts' ? folder : file.replace(/\.ts$/, '');
};
const section = (isWording) => (file) => {
  const texts = textsOf(file, isWording);
  return texts.length === 0
    ? ''
    : `## ${feature(file)}\n\n${texts.map((text) => `- ${text.replaceAll('\n', ' ⏎ ')}`).join('\n')}\n`;
};
const page = [
  '# Texts\n',
  'All texts of the interface by feature, made by `node scripts/texts.mjs` from the code. What is put in stands in braces.\n',
  ...files(WORDING).map(section(true)),
  ...files(TABLES).map(section(false)),
]
  .filter((part) => part !== '')
  .join('\n');

if (process.argv.includes('--check')) {
  if (readFileSync(PAGE, 'utf8') !== page) {
    console.error('docs/TEXTS.md is not what the texts are now: run node scripts/texts.mjs');
    process.exit(1);
  }
} else writeFileSync(PAGE, page);
