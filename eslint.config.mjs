import js from '@eslint/js';
import tseslint from 'typescript-eslint';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';

/** Promises and unions need the types to be judged; each folder's tests belong to the tests' project. */
const typed = {
  languageOptions: {
    parserOptions: {
      project: ['core/tsconfig.json', 'server/tsconfig.json', 'web/tsconfig.json', 'tsconfig.tests.json'],
      tsconfigRootDir: import.meta.dirname,
    },
  },
  rules: {
    '@typescript-eslint/no-floating-promises': 'error',
    '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false, arguments: false } }],
    '@typescript-eslint/await-thenable': 'error',
    '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
  },
};

export default tseslint.config(
  {
    ignores: [
      'dist/**',
      'build/**',
      'node_modules/**',
      '.data*/**',
      'core/asm/**',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      'no-restricted-syntax': [
        'error',
        { selector: 'ExportAllDeclaration', message: 'List the names: what is not listed is private.' },
      ],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  { files: ['**/*.{ts,tsx}'], ignores: ['web/vite.config.ts'], ...typed },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    files: ['web/src/**/*.tsx'],
    ignores: ['web/src/ui/**', '**/*.test.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'JSXOpeningElement[name.name=/^(button|input|select|textarea)$/]',
          message: 'Use a control of web/src/ui or of Chakra UI: it carries our look, its keys and its names.',
        },
        {
          selector:
            'JSXAttribute[name.name="style"] :matches(Property > Literal.value, Property > ConditionalExpression.value > Literal)',
          message: 'Inline style is for what is computed; what is fixed is a style prop, a recipe or a class.',
        },
        {
          selector:
            'JSXText[value=/[A-Za-z]{2}/], JSXAttribute[name.name=/^(label|title|aria-label|placeholder|alt)$/] > Literal[value=/[A-Za-z]{2}/]',
          message: "What people read stands in the feature's words.ts, where it can be translated.",
        },
      ],
    },
  },
);
