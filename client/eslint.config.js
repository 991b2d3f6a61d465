import js from '@eslint/js';
import i18next from 'eslint-plugin-i18next';
import imports from 'eslint-plugin-import-x';
import a11y from 'eslint-plugin-jsx-a11y';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

/*
 * The floors of the client, from the ground up. A folder imports from floors below its own and never from a
 * folder beside it, so that what is shared lies where everybody looks for it.
 */
const floors = [
  ['texts'],
  ['api'],
  ['design'],
  ['domain'],
  ['jobs'],
  ['forms'],
  ['overlay'],
  [
    'accounts',
    'bench',
    'destinations',
    'folders',
    'framing',
    'handing-over',
    'page-check',
    'pictures',
    'responsive',
    'weighing',
  ],
  ['app'],
];

const zones = floors
  .flatMap((floor, at) =>
    floor.map((folder) => ({
      target: `./src/${folder}`,
      from: [...floors.slice(at + 1).flat(), ...floor.filter((other) => other !== folder)].map(
        (other) => `./src/${other}`,
      ),
      message: 'A folder imports only from the floors below its own.',
    })),
  )
  .filter((zone) => zone.from.length > 0);

/*
 * A promise that nobody waits for loses its refusal. Types are needed to find it: .oxlintrc.json asks for that, because there they
 * are worked out in a fifth of the time.
 */
export default ts.config(
  { ignores: ['dist', 'src/api/schema.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    plugins: { 'react-hooks': hooks, 'import-x': imports },
    settings: { 'import-x/resolver-next': [imports.createNodeResolver({ extensions: ['.ts', '.tsx'] })] },
    rules: {
      'import-x/no-cycle': 'error',
      'import-x/no-restricted-paths': ['error', { basePath: import.meta.dirname, zones }],
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      'max-lines-per-function': ['error', { max: 80 }],
    },
  },
  {
    files: ['**/*.tsx'],
    plugins: { 'jsx-a11y': a11y, i18next },
    rules: {
      'max-lines': ['error', { max: 200 }],
      ...a11y.flatConfigs.recommended.rules,
      'jsx-a11y/label-has-associated-control': ['error', { depth: 5 }],
      // What scrolls or is moved by arrow keys has the keyboard.
      'jsx-a11y/no-noninteractive-tabindex': [
        'error',
        { tags: ['pre'], roles: ['application', 'group', 'region', 'tabpanel'] },
      ],
      // Keys that a field does not use come up to the part that holds it.
      'jsx-a11y/no-noninteractive-element-interactions': [
        'error',
        { handlers: ['onClick', 'onMouseDown', 'onMouseUp'] },
      ],
      'jsx-a11y/no-static-element-interactions': [
        'error',
        { handlers: ['onClick', 'onMouseDown', 'onMouseUp'] },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector: ':matches(Literal[value=/text-\\[\\d/], TemplateElement[value.raw=/text-\\[\\d/])',
          message: 'Sizes of type come from the scale in theme.css.',
        },
      ],
      // Every text of a screen stands in the catalogue; the names of keys on a keyboard are no texts.
      'i18next/no-literal-string': [
        'error',
        {
          mode: 'jsx-text-only',
          words: {
            exclude: ['[^a-z]*', 'Ctrl', 'Del', 'Enter', 'Esc', 'Ctrl Enter', 'Pantomet', '/live/', 'px'],
          },
        },
      ],
    },
  },
);
