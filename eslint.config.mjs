// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'

/**
 * The arrows of the house run one way: app → shared, core; server → shared, core; services → models,
 * adapters; routes → services. A folder may not import what is listed for it.
 */
const arrows = {
  'core/**/*.ts': ['vue', 'vue-*', 'nuxt*', '#*', 'node:*', 'pg', 'sequelize', 'h3', '~~/app/*', '~~/server/*', '~~/shared/*', '~~/demo/*', '~~/stand-ins/*', '../**/app/**', '../**/server/**', '../**/shared/**'],
  'shared/**/*.ts': ['vue', 'vue-*', 'nuxt*', '#*', 'node:*', 'pg', 'sequelize', 'h3', '~~/app/*', '~~/server/*', '~~/demo/*', '~~/stand-ins/*', 'class-transformer'],
  'app/**/*.{ts,vue}': ['node:*', 'pg', 'sequelize', 'h3', '~~/server/*', '~~/demo/*', '~~/stand-ins/*'],
  'server/**/*.ts': ['vue', 'vue-*', '#app', '~~/app/*', '~~/demo/*', '~~/stand-ins/*', '~/*'],
  'server/models/**/*.ts': ['../services/*', '../adapters/*', '../http/*', '../work/*', '~~/server/services/*'],
  'server/{api,routes}/**/*.ts': ['sequelize', 'pg', '~~/server/work/*', 'node:fs', 'node:fs/promises', 'node:child_process'],
  'stand-ins/**/*.ts': ['~~/*', '../../core/*', '../../server/*', '../../shared/*', '../../app/*'],
}

const pure = {
  name: 'core is pure',
  files: ['core/**/*.ts'],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-globals': ['error', 'fetch', 'process', 'window', 'document', 'setTimeout', 'setInterval'],
    'no-restricted-properties': ['error', { object: 'Date', property: 'now', message: 'Time is an argument.' }, { object: 'Math', property: 'random' }, { object: 'performance', property: 'now' }],
  },
}

export default withNuxt(
  { ignores: ['.karstland*/**', 'test-results/**', 'docs/**'] },
  ...Object.entries(arrows).map(([files, group]) => ({
    name: `arrows of ${files}`,
    files: [files],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message: 'The arrows of the house do not run this way.' }] }] },
  })),
  pure,
  {
    name: 'house style',
    files: ['**/*.{ts,vue,mjs}'],
    rules: {
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      'no-console': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/no-deprecated-slot-attribute': 'off',
      'vue/no-multiple-template-root': 'off',
      'vue/attributes-order': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/unified-signatures': 'off',
      '@typescript-eslint/no-empty-object-type': 'off',
      'import/first': 'off',
      'no-control-regex': 'off',
    },
  },
)
