import { createConfigForNuxt } from '@nuxt/eslint-config/flat'

/** Imports point downwards only. Each folder of core may use those before it in this list, and no interface or server at all. */
const FLOORS = [['quantity'], ['network', 'door'], ['amplifier', 'schools'], ['gear', 'room', 'programme'], ['job'], ['hands', 'meter'], ['faults'], ['check', 'window'], ['polarity'], ['line'], ['advice'], ['search'], ['trace'], ['practice'], ['quick', 'format']]

const floors = FLOORS.flatMap((folders, floor) => folders.map((folder) => {
  const above = FLOORS.slice(floor + 1).flat()
  const beside = folders.filter(f => f !== folder)
  return {
    files: [`core/${folder}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', {
        patterns: [
          { group: ['~/*', '**/app/**', '**/server/**', '**/cli/**', '**/demo/**', 'vue', 'pinia', 'nuxt*', 'h3', 'knex', 'pg', 'node:*', 'd3-*', '!d3-array'], message: 'The core knows no interface, no server, no I/O.' },
          ...(above.length + beside.length > 0 ? [{ group: [...above, ...beside, 'testing'].map(f => `#core/${f}/*`), message: `core/${folder} may not look up to them.` }] : []),
        ],
      }],
      'no-restricted-globals': ['error', 'Date', 'process', 'fetch', 'localStorage', 'crypto'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Chance is handed in.' }],
    },
  }
}))

const SAME = {
  selector: 'BinaryExpression[operator=/^[!=]==?$/] > CallExpression[callee.property.name="stringify"]',
  message: 'Texts of JSON hang on the order of keys, and the database keeps another: use same() of core/quantity/same.',
}

export default createConfigForNuxt({ features: { stylistic: true, typescript: { strict: true } } }).append(
  { ignores: ['.build/**', '.nuxt/**', '.data/**', 'docs/**'] },
  {
    rules: {
      'no-restricted-syntax': ['error', SAME],
      '@stylistic/quote-props': 'off',
      '@stylistic/max-len': ['error', { code: 160, ignoreTemplateLiterals: true, ignoreStrings: true, ignoreRegExpLiterals: true }],
      '@stylistic/max-statements-per-line': ['error', { max: 2 }],
      '@typescript-eslint/no-non-null-assertion': 'off', // indexed access is checked; where a value is known to be there, it is said so
      '@typescript-eslint/no-dynamic-delete': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-indent': 'off',
      'vue/require-default-prop': 'off',
    },
  },
  {
    files: ['core/**/*.ts', 'app/**/*.{ts,vue}'],
    ignores: ['core/amplifier/**', 'core/job/upgrades/**', '**/*.test.ts'],
    rules: {
      'no-restricted-syntax': ['error', SAME, {
        selector: 'BinaryExpression[operator=/^[!=]==$/] > MemberExpression.left[property.name="kind"]:matches([object.name="rating"],[object.property.name="rating"])',
        message: 'A new kind of rating would be passed over in silence here: ask core/amplifier (questions.ts).',
      }],
    },
  },
  { files: ['**/*.test.ts'], rules: { '@typescript-eslint/no-explicit-any': 'off', '@stylistic/max-statements-per-line': 'off' } },
  ...floors,
)
