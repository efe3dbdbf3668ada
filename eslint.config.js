import js from '@eslint/js';
import importX from 'eslint-plugin-import-x';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const TESTS = ['**/*.test.ts', '**/*.test.tsx', '**/*.test-helper.ts', '**/*.test-helper.tsx', 'e2e/**'];

export default tseslint.config(
  { ignores: ['dist/**', 'node_modules/**', '.data/**', '.cache/**', 'coverage/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        projectService: { allowDefaultProject: ['eslint.config.js'] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
  },
  {
    plugins: { 'import-x': importX },
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/no-import-type-side-effects': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true },
      ],
      'import-x/first': 'error',
      'import-x/no-duplicates': ['error', { 'prefer-inline': true }],
      'import-x/newline-after-import': 'error',
      'import-x/no-mutable-exports': 'error',
      'import-x/no-self-import': 'error',
      'max-len': ['error', { code: 120, ignoreUrls: true, ignoreRegExpLiterals: true }],
      'no-console': 'off',
      eqeqeq: 'error',
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx'],
    ignores: TESTS,
    rules: { 'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }] },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // Most of its rules read a file as the compiler of React would, which takes long: where components and hooks are.
    files: ['web/**/*.tsx', 'web/**/use[A-Z]*.ts', 'web/api/*.ts', 'web/ui/*.ts', 'web/pages/ear/earSettings.ts'],
    ignores: TESTS,
    ...reactHooks.configs.flat.recommended,
  },
  { files: ['web/**/*.tsx'], ...jsxA11y.flatConfigs.recommended },
  { files: ['**/*.js', '**/*.cjs'], ...tseslint.configs.disableTypeChecked },
  { files: ['**/*.cjs'], languageOptions: { globals: { module: 'writable' } } },
  {
    files: ['core/**/*.ts'],
    ignores: TESTS,
    rules: {
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Take a seed.' }],
      'no-restricted-globals': ['error', 'Date'],
    },
  },
);
