/** Plants a breach of every rule of the house and sees each fail: a rule that finds nothing may be one that does not look. */
import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ESLint } from 'eslint';
import tseslint from 'typescript-eslint';
import { CORE_ORDER, FEATURE_ORDER } from '../eslint.config.mjs';
import { CYCLES, root } from './ensure.mjs';
import { missingNames } from './prove.mjs';

const ROOM = 'import/no-restricted-paths';
const DOOR = 'no-restricted-imports';
const use = (from) => `import * as planted from '${from}';\nexport const used = planted;\n`;
const door = (folder) => join('src', folder, 'index.ts');

/** Each room with the one after it, which it must not know. */
const backwards = (folder, order) =>
  order.slice(0, -1).map((room, i) => [ROOM, door(`${folder}/${room}`), use(`@/${folder}/${order[i + 1]}`)]);

/** Rule, an existing file, and what is planted there in its place. */
const BREACHES = [
  ...backwards('core', CORE_ORDER),
  ...backwards('features', FEATURE_ORDER),
  [ROOM, 'src/core/base/index.ts', use('@/store')],
  [ROOM, 'src/worker/index.ts', use('@/ui')],
  [ROOM, 'src/audio/index.ts', use('@/store')],
  [ROOM, 'src/store/index.ts', use('@/ui')],
  [ROOM, 'src/ui/index.ts', use('@/store')],
  [ROOM, 'src/app/index.tsx', use('@/audio')],
  [ROOM, 'server/app.ts', use('@/store')],
  [ROOM, 'src/core/base/index.ts', use('../../../server/app')],
  [DOOR, 'src/features/stand/index.ts', use('@/core/verdict/judge')],
  [DOOR, 'src/features/stand/index.ts', use('@/core/hearing/notes/hear')],
  [DOOR, 'src/features/stand/index.ts', use('@/store/settings')],
  [DOOR, 'src/features/stand/index.ts', use('@/features/take/judging')],
  [
    '@typescript-eslint/no-explicit-any',
    'src/core/base/index.ts',
    'export const planted = (x: any): unknown => x;\n',
  ],
  [
    '@typescript-eslint/consistent-type-imports',
    'src/core/base/index.ts',
    "import { Random } from './random';\nexport type Planted = Random;\n",
  ],
  ['jsdoc/require-jsdoc', 'src/core/base/pcm.ts', 'export const planted = (x: number) => x;\n'],
  ['no-console', 'src/core/base/index.ts', "console.log('planted');\n"],
  [
    'react-hooks/rules-of-hooks',
    'src/ui/later.tsx',
    "import { useState } from 'react';\nexport function Planted({ is }: { is: boolean }) {\n  if (is) useState(0);\n  return null;\n}\n",
  ],
];
/** Rules that ask for types, which takes longer: one program for all of them. */
const TYPED = [
  [
    '@typescript-eslint/no-floating-promises',
    'src/core/base/pcm.ts',
    'export const planted = () => {\n  Promise.resolve();\n};\n',
  ],
  [
    '@typescript-eslint/restrict-template-expressions',
    'src/core/base/pcm.ts',
    'export const planted = (x: object) => `${x}`;\n',
  ],
];

async function found(eslint, [rule, file, text]) {
  const [{ messages }] = await eslint.lintText(text, { filePath: join(root, file) });
  return messages.some(({ ruleId }) => ruleId === rule);
}

const untyped = new ESLint({
  cwd: root,
  overrideConfig: [{ ...tseslint.configs.disableTypeChecked, files: ['**/*.ts', '**/*.tsx'] }],
});
const typed = new ESLint({ cwd: root });
const missed = [];
for (const [eslint, breaches] of [
  [untyped, BREACHES],
  [typed, TYPED],
])
  for (const breach of breaches)
    if (!(await found(eslint, breach)))
      missed.push(`${breach[0]} did not find ${JSON.stringify(breach[2])} in ${breach[1]}`);

/** Two files that need one another, by way of types alone and by way of what is loaded later. */
const CYCLE = join('build', 'planted');
for (const [name, back] of [
  ['types', "import type { A } from './a';\nexport type B = A | null;\n"],
  ['later', "export const b = () => import('./a');\n"],
]) {
  const folder = join(root, CYCLE, name);
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, 'a.ts'), "export * from './b';\nexport type A = string;\n");
  writeFileSync(join(folder, 'b.ts'), back);
  const args = [
    join(root, 'node_modules/dependency-cruiser/bin/dependency-cruise.mjs'),
    ...CYCLES.slice(0, 2),
    join(CYCLE, name),
  ];
  if (spawnSync(process.execPath, args, { cwd: root, stdio: 'ignore' }).status === 0)
    missed.push(`cycles did not find one of ${name}`);
}
rmSync(join(root, CYCLE), { recursive: true });

/** What a build makes of modules, the first of which asks a name of the second. */
const bundle = (...bodies) =>
  bodies
    .map(
      (body, i) =>
        `__d(function (global, require, _$$_IMPORT_DEFAULT, _$$_IMPORT_ALL, module, exports, _dependencyMap) {${body}},${i},[${i + 1}]);`,
    )
    .join('\n');
const ES = 'Object.defineProperty(exports, "__esModule", { value: true });';
const ASKS = 'var _b = require(_dependencyMap[0]); (0, _b.planted)();';
const PASSES_ON = `${ES} var _c = require(_dependencyMap[0]); Object.defineProperty(exports, "planted", { enumerable: true, get: function () { return _c.planted; } });`;
const BUNDLES = [
  ['a module that was left out', bundle(ASKS, ''), 1],
  ['a module that passes on what was left out', bundle(ASKS, PASSES_ON, ''), 1],
  ['a module without the name', bundle(ASKS, `${ES} exports.other = 1;`), 1],
  ['a module that has it', bundle(ASKS, PASSES_ON, `${ES} exports.planted = 1;`), 0],
];
for (const [what, built, count] of BUNDLES)
  if (missingNames([built]).missing.length !== count) missed.push(`the build's proof is wrong about ${what}`);

for (const each of missed) console.error(each);
console.log(
  `${BREACHES.length + TYPED.length + 2 + BUNDLES.length} breaches planted, ${missed.length} not found`,
);
process.exit(missed.length === 0 ? 0 : 1);
