import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  ...tseslint.configs.strictTypeChecked,
  reactHooks.configs.flat.recommended,
  {
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
    },
  },
  {
    files: ['src/**/*.tsx'],
    ignores: ['src/**/*.test*.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'JSXText[value=/[A-Za-z]/]', message: 'Texts are in src/messages/en.json: use t() or rich().' },
        {
          selector:
            'JSXAttribute[name.name=/^(label|title|placeholder|hint|what|aria-label)$/] > Literal[value=/[A-Za-z]/]',
          message: 'Texts are in src/messages/en.json: use t().',
        },
      ],
    },
  },
)
