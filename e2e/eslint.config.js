import js from '@eslint/js';
import globals from 'globals';
import ts from 'typescript-eslint';

// Half of what stands here runs in Node.js, half in the browser.
export default ts.config(js.configs.recommended, ...ts.configs.recommended, {
  files: ['*.mjs'],
  languageOptions: { globals: { ...globals.node, ...globals.browser } },
});
