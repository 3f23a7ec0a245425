import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['node_modules/', '.nuxt/', '.output/', '.data/', 'test-results/', 'playwright-report/'] },
  ...ts.configs.strict,
  ...vue.configs['flat/essential'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off', // an index just checked; the compiler cannot see it
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/unified-signatures': 'off',
      'vue/multi-word-component-names': 'off',
      'no-console': 'off',
      'max-statements-per-line': ['error', { max: 1 }],
      'no-duplicate-imports': ['error', { allowSeparateTypeImports: true }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'vue/attributes-order': 'error',
    },
  },
  {
    // What PrimeVue has is not written again: its adapters are in app/components/ui. The exceptions, each with its
    // reason, are in docs/decisions/primevue.md.
    files: ['app/**/*.vue'],
    ignores: [
      'app/components/ui/**',
      'app/components/thread/ThreadStack.vue',
      'app/components/plan/StationGrid.vue',
      'app/components/schedule/ScheduleGrid.vue',
      'app/components/sweep/SweepEntry.vue',
    ],
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        { element: ['select', 'option', 'input', 'textarea', 'button', 'table', 'progress', 'dialog', 'meter'] },
      ],
    },
  },
  {
    // A switch over a union names every member or has a default; what is added later is then found by the linter.
    files: ['core/**/*.ts', 'words/**/*.ts', 'cli/**/*.ts', 'standins/**/*.ts', 'bench/**/*.ts'],
    languageOptions: { parserOptions: { project: ['./tsconfig.core.json'], tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true, requireDefaultForNonUnion: true },
      ],
    },
  },
)
