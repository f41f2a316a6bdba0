// The rules for the scripts of the pages: the recommended ones, and a few more on which this house agrees.
import js from '@eslint/js';
import globals from 'globals';

const SCRIPTS = 'src/main/resources/static';

export default [
  { ignores: [`${SCRIPTS}/lib/**`] },
  js.configs.recommended,
  {
    languageOptions: { ecmaVersion: 2022, sourceType: 'module', globals: { ...globals.browser, bootstrap: 'readonly', htmx: 'readonly' } },
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    rules: {
      eqeqeq: 'error',
      'no-var': 'error',
      'prefer-const': 'error',
      'no-implicit-globals': 'error',
      'no-eval': 'error',
      'no-implied-eval': 'error',
      'no-new-func': 'error',
      'no-script-url': 'error',
      'no-nested-ternary': 'error',
      'no-shadow': 'error',
      'no-param-reassign': 'error',
      'no-return-assign': 'error',
      'no-throw-literal': 'error',
      'no-useless-return': 'error',
      'object-shorthand': 'error',
      'max-lines': ['error', 300],
      complexity: ['error', 20],
    },
  },
  // Before anything is drawn: a classic script.
  { files: [`${SCRIPTS}/js/light.js`], languageOptions: { sourceType: 'script' } },
];
