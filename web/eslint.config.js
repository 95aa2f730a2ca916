import { readdirSync } from 'node:fs';
import i18n from '@intlify/eslint-plugin-vue-i18n';
import vue from 'eslint-plugin-vue';
import tseslint from 'typescript-eslint';

/** Every unit of the front end; another unit is used through its index.ts. */
const features = readdirSync(new URL('./src/features', import.meta.url)).map((f) => `features/${f}`);
const units = ['study-kernel', 'workspace', ...features];

/** What a unit may not know at all. */
const above = {
  shared: units,
  stores: units,
  api: [...units, 'shared', 'stores'],
  'study-kernel': ['workspace', ...features],
};

export default tseslint.config(
  { ignores: ['dist', 'target', 'node_modules', 'src/api/schema.d.ts'] },
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: tseslint.parser } },
  },
  {
    files: ['src/**/*.{ts,vue}'],
    plugins: { '@intlify/vue-i18n': i18n },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      '@intlify/vue-i18n/no-raw-text': ['error', { ignorePattern: '^[\\s–—·.,:;()/|×±%⚠→←↑↓…+=✓*?-]*$' }],
    },
  },
  ...[...units, 'shared', 'stores', 'api'].map((unit) => ({
    files: [`src/${unit}/**/*.{ts,vue}`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: units.filter((u) => u !== unit).map((u) => `@/${u}/*`),
              message: 'Import another unit through its index.ts.',
            },
            {
              group: [
                '@/app/*',
                ...(unit.startsWith('features/') ? ['@/workspace'] : (above[unit] ?? []).map((u) => `@/${u}`)),
              ],
              message: 'This lies above: see the order of the house in docs/architecture.md.',
            },
          ],
        },
      ],
    },
  })),
);
