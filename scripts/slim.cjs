const { readdirSync, readFileSync } = require('node:fs');
const path = require('node:path');

const SRC = path.join(__dirname, '..', 'src');

/** Packages that come as one file, of which a few functions are used. */
const ONE_FILE = /[\\/]node_modules[\\/](d3-array|d3-shape)[\\/]dist[\\/]/;

/** What TypeScript writes into each file that it makes of an `import * as`, and what only that needs. */
const WRITTEN = '__importStar';
const FOR_IT = ['__createBinding', '__setModuleDefault'];
/** The same, once for all. */
const SHARED = '@babel/runtime/helpers/interopRequireWildcard';

const MODULES = path.join(__dirname, '..', 'node_modules');

/** Whatever may ask something of these packages: our sources, and their sisters. */
const asking = () => [
  ...readdirSync(SRC, { recursive: true })
    .filter((file) => /\.tsx?$/.test(file) && !/\.test(ing)?\./.test(file))
    .map((file) => path.join(SRC, file)),
  ...readdirSync(MODULES)
    .filter((name) => name.startsWith('d3-'))
    .map((name) => path.join(MODULES, name, 'dist', `${name}.mjs`)),
];

/** What is imported of these packages, each as `package/name`. What is overlooked here is found by prove.mjs. */
function allUsed() {
  return asking()
    .flatMap((file) => [
      ...readFileSync(file, 'utf8').matchAll(/import ?\{([^}]*)\} ?from ?['"](d3-[a-z]+)['"]/g),
    ])
    .flatMap(([, names, from]) =>
      names.split(',').map((each) => `${from}/${/^(?:type )?(\w*)/.exec(each.trim())[1]}`),
    )
    .sort();
}

let used = null;
/** What is used of one of them, by name. */
function usedOf(name) {
  used ??= allUsed();
  return used.filter((each) => each.startsWith(`${name}/`)).map((each) => each.slice(name.length + 1));
}

/** For Babel: leaves out of packages what they carry along and nobody here asks for. */
module.exports = ({ types: t }) => ({
  name: 'slim',
  visitor: {
    Program(at, { filename }) {
      const { body } = at.node;
      const [, name] = ONE_FILE.exec(filename ?? '') ?? [];
      if (name) {
        const names = new Set(usedOf(name));
        for (const each of body)
          if (each.type === 'ExportNamedDeclaration' && !each.source && each.specifiers.length > 0)
            each.specifiers = each.specifiers.filter(({ exported }) => names.has(exported.name));
        return;
      }
      const written = new Map(
        body
          .filter(({ type }) => type === 'VariableDeclaration')
          .flatMap(({ declarations }) => declarations.map((each) => [each.id.name, each])),
      );
      const star = written.get(WRITTEN);
      if (star?.init?.type !== 'LogicalExpression' || written.has('__exportStar')) return;
      star.init = t.callExpression(t.identifier('require'), [t.stringLiteral(SHARED)]);
      for (const each of FOR_IT) if (written.has(each)) written.get(each).init = null;
    },
  },
});

module.exports.allUsed = allUsed;
