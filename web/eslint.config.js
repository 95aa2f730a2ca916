import i18n from '@intlify/eslint-plugin-vue-i18n';
import vue from 'eslint-plugin-vue';
import tseslint from 'typescript-eslint';

const features = [
  'account',
  'characters',
  'edition',
  'identify',
  'importing',
  'key',
  'publish',
  'scope',
  'score',
  'studies',
  'study',
];

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
  ...features.map((feature) => ({
    files: [`src/features/${feature}/**/*.{ts,vue}`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: features.filter((f) => f !== feature).map((f) => `@/features/${f}/*`),
              message: 'Import another feature through its index.ts.',
            },
          ],
        },
      ],
    },
  })),
);
