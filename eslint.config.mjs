import { basename, dirname } from 'node:path';
import prettier from 'eslint-config-prettier';
import importPlugin from 'eslint-plugin-import';
import jsdoc from 'eslint-plugin-jsdoc';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** The rooms of the house and what each may import; arrows point one way. `core` has an order of its own below. */
const ROOMS = {
  core: [],
  worker: ['core'],
  audio: ['core', 'worker'],
  store: ['core', 'worker'],
  ui: ['core'],
  features: ['core', 'worker', 'audio', 'store', 'ui'],
  app: ['store', 'ui', 'features'],
};

/** Each part of the work is a folder with all that belongs to it; it may use the parts before it. */
export const FEATURE_ORDER = [
  'sound',
  'care',
  'take',
  'stand',
  'library',
  'music',
  'instruments',
  'map',
  'log',
  'bench',
  'planning',
  'session',
  'week',
  'today',
];

/** Data flows one way: music → hearing → take → verdict. Each room of the core may use those before it. */
export const CORE_ORDER = [
  'base',
  'tuning',
  'instruments',
  'music',
  'music/files',
  'hearing/signal',
  'hearing/room',
  'hearing/notes',
  'hearing/matching',
  'hearing/following',
  'take',
  'verdict',
  'verdict/coach',
  'ledger',
  'plan',
  'formats',
  'lab',
];

const zones = [
  ...Object.entries(ROOMS).map(([room, allowed]) => ({
    target: `./src/${room}/**/!(*.test|*.testing).{ts,tsx}`,
    from: './src',
    except: [room, ...allowed].map((name) => `./${name}`),
    message: `src/${room} may use only: ${allowed.join(', ') || 'nothing'}.`,
  })),
  ...CORE_ORDER.map((room, i) => ({
    target: `./src/core/${room}/**/!(*.test|*.testing).ts`,
    from: './src/core',
    except: CORE_ORDER.slice(0, i + 1).map((name) => `./${name}`),
    message: `core/${room} may use only the rooms before it: ${CORE_ORDER.slice(0, i).join(', ') || 'none'}.`,
  })),
  // A room within a room comes after it: what lies around it must not know it.
  ...CORE_ORDER.filter((room) => CORE_ORDER.includes(dirname(room))).map((room) => ({
    target: [
      `./src/core/${dirname(room)}/!(*.test|*.testing).ts`,
      `./src/core/${dirname(room)}/!(${basename(room)})/**/!(*.test|*.testing).ts`,
    ],
    from: `./src/core/${room}`,
    message: `core/${dirname(room)} comes before core/${room}.`,
  })),
  ...FEATURE_ORDER.map((room, i) => ({
    target: `./src/features/${room}`,
    from: './src/features',
    except: FEATURE_ORDER.slice(0, i + 1).map((name) => `./${name}`),
    message: `features/${room} may use only: ${FEATURE_ORDER.slice(0, i).join(', ') || 'no other feature'}.`,
  })),
  { target: './server', from: './src', except: ['./core'], message: 'The server uses the core only.' },
  { target: './src', from: './server', message: 'The app knows the server by its API only.' },
];

export default tseslint.config(
  { ignores: ['node_modules', 'dist', 'build', '.expo', 'docs'] },
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        projectService: { allowDefaultProject: ['*.js', '*.mjs', 'scripts/*.cjs'] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    plugins: { import: importPlugin },
    settings: { 'import/resolver': { typescript: { project: './tsconfig.json' } } },
    rules: {
      'import/no-restricted-paths': ['error', { zones }],
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: [
                '@/core/*/*',
                '!@/core/hearing/*',
                '!@/core/music/files',
                '!@/core/formats/archive',
                '!@/core/formats/calendar',
                '!@/core/formats/shared',
                '!@/core/lab/learners',
                '!@/core/verdict/coach',
                '@/core/hearing/*/*',
                '@/core/verdict/*/*',
                '!@/core/**/*.testing',
                '@/audio/*',
                '@/worker/*',
                '@/store/*',
                '!@/store/*.testing',
                '@/ui/*',
                '!@/ui/charts',
                '@/ui/charts/*',
                '!@/ui/*.testing',
                '@/features/*/*',
                '!@/features/*/*.testing',
              ],
              message: 'Go in by the door: the folder’s index.ts.',
            },
          ],
        },
      ],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      // Indices in signal loops are bounded by construction; noUncheckedIndexedAccess makes `!` the honest mark of that.
      '@typescript-eslint/no-non-null-assertion': 'off',
      'no-console': ['error', { allow: ['warn', 'error'] }],
    },
  },
  {
    // These rules compile every function they see; the core has no components.
    files: ['src/{app,audio,features,store,ui}/**'],
    plugins: { 'react-hooks': reactHooks },
    rules: reactHooks.configs.recommended.rules,
  },
  {
    // What one room of the core offers another says what it is.
    files: ['src/core/**/!(*.test|*.testing).ts'],
    plugins: { jsdoc },
    rules: {
      'jsdoc/require-jsdoc': [
        'error',
        {
          publicOnly: { esm: true, cjs: false, window: false },
          require: { FunctionDeclaration: true, ArrowFunctionExpression: true, ClassDeclaration: true },
          enableFixer: false,
        },
      ],
    },
  },
  { files: ['server/**', 'scripts/**', 'bench/**', 'e2e/engines/**'], rules: { 'no-console': 'off' } },
  { files: ['**/*.js', '**/*.cjs', '**/*.mjs'], ...tseslint.configs.disableTypeChecked },
  {
    files: ['**/*.js', '**/*.cjs', '**/*.mjs'],
    rules: { '@typescript-eslint/no-require-imports': 'off', 'no-console': 'off' },
  },
  prettier,
);
