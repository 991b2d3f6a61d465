import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['dist', 'src/api/schema.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    plugins: { 'react-hooks': hooks },
    // A promise that nobody waits for loses its refusal: with types it is found.
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
    },
  },
);
