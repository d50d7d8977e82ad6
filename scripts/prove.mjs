/**
 * Reads what was built and finds every name that one module asks of another and that is not there: parts of packages are left
 * out (leftOut.cjs, slim.cjs), and a package's next release may want them.
 */
import { parse } from '@babel/parser';
import { NEVER_RUN } from './leftOut.cjs';

/** Wrappers that compilers put around what is required, which leave names as they are. */
const WRAPPERS = /^_*(interop(Default|Namespace|RequireDefault|RequireWildcard)|import(Default|Star))\d*$/;
/** The parameters of a module, as Metro writes them, that require. */
const REQUIRES = new Set(['require', '_$$_IMPORT_DEFAULT', '_$$_IMPORT_ALL']);

/** Visits a node and all below it. @param above the nodes that it stands in, the nearest last. */
function walk(node, visit, above = []) {
  visit(node, above);
  above.push(node);
  for (const key in node) {
    const below = node[key];
    if (Array.isArray(below)) {
      for (const each of below) if (each?.type) walk(each, visit, above);
    } else if (below?.type) walk(below, visit, above);
  }
  above.pop();
}

const nameOf = ({ property, computed }) =>
  computed ? (property.type === 'StringLiteral' ? property.value : null) : property.name;
const calledName = ({ callee }) => callee.name ?? callee.property?.name ?? '';
const isCall = (node) => node?.type === 'CallExpression';
const isExports = (node) => node?.type === 'Identifier' && node.name === 'exports';
const isModuleExports = (node) =>
  node.type === 'MemberExpression' && node.object.name === 'module' && nameOf(node) === 'exports';

/** Where a call of `require(_dependencyMap[k])` leads; undefined: it is another call. */
function requiredBy(node, dependencies) {
  if (!isCall(node) || !REQUIRES.has(node.callee.name)) return undefined;
  const [argument] = node.arguments;
  return argument?.object?.name === '_dependencyMap' ? dependencies[argument.property.value] : undefined;
}

/** The name under which an expression is only given out: `exports.N = …`, or what a getter of `exports` answers. */
function givenOutAs(node, above) {
  const next = above.at(-1);
  if (next.type === 'AssignmentExpression' && next.right === node && next.left.type === 'MemberExpression')
    return isExports(next.left.object) ? nameOf(next.left) : null;
  if (next.type !== 'ReturnStatement') return null;
  // exports ← defineProperty(…, { get: function () { return … } })
  const definition = above.at(-6);
  return isCall(definition) && isExports(definition.arguments[0]) ? definition.arguments[1].value : null;
}

const known = new WeakMap();
/** The names that a function makes for itself, in which a module's own are hidden. */
function namesIn(node) {
  if (!known.has(node)) {
    const names = new Set(node.params.map(({ name }) => name));
    walk(node.body, (each) => each.type === 'VariableDeclarator' && names.add(each.id.name));
    known.set(node, names);
  }
  return known.get(node);
}

/** One module: what it gives out, what it passes on of others, and what it asks of which other. */
function readModule(factory, dependencies, words) {
  const isEmpty = factory.body.body.length === 0;
  const read = { words, gives: new Set(), isKnown: isEmpty, passes: [], stars: [], asks: [], whole: null };
  const bound = new Map();
  /** What is done with an expression that stands for a module. */
  const follow = (node, above, from) => {
    let [at, around] = [node, above];
    while (
      isCall(around.at(-1)) &&
      around.at(-1).arguments.includes(at) &&
      WRAPPERS.test(calledName(around.at(-1)))
    )
      [at, around] = [around.at(-1), around.slice(0, -1)];
    const next = around.at(-1);
    if (next.type === 'MemberExpression' && next.object === at) {
      const name = nameOf(next);
      const as = givenOutAs(next, around.slice(0, -1));
      if (name === null) return;
      if (as !== null) read.passes.push({ as, from, name });
      else read.asks.push({ from, name });
    } else if (next.type === 'VariableDeclarator' && next.init === at) {
      if (next.id.type === 'Identifier') bound.set(next.id.name, from);
    } else if (
      isCall(next) &&
      (/exportStar$/.test(calledName(next)) || (calledName(next) === 'keys' && next.arguments[0] === at))
    )
      read.stars.push(from);
    else if (next.type === 'AssignmentExpression' && isModuleExports(next.left)) read.whole = from;
  };
  let givesOwn = false;
  walk(factory.body, (node, above) => {
    const from = requiredBy(node, dependencies);
    if (from !== undefined) follow(node, [...above], from);
    if (isCall(node) && calledName(node) === 'defineProperty' && isExports(node.arguments[0])) {
      if (node.arguments[1].value === '__esModule') read.isKnown = true;
      else read.gives.add(node.arguments[1].value);
    } else if (node.type === 'AssignmentExpression' && node.left.type === 'MemberExpression') {
      if (isExports(node.left.object)) read.gives.add(nameOf(node.left));
      else if (isModuleExports(node.left)) givesOwn = true;
    }
  });
  // What is bound to a name may be wrapped and bound once more: names come before their uses.
  walk(factory.body, (node, above) => {
    if (node.type !== 'Identifier' || !bound.has(node.name)) return;
    const next = above.at(-1);
    const isUse =
      !above.some((each) => each.params && namesIn(each).has(node.name)) &&
      !(next.type === 'VariableDeclarator' && next.id === node) &&
      !(next.type === 'MemberExpression' && next.property === node && !next.computed) &&
      !(next.type === 'ObjectProperty' && next.key === node && !next.computed);
    if (isUse) follow(node, [...above], bound.get(node.name));
  });
  if (givesOwn && read.whole === null) read.isKnown = false;
  return read;
}

/** @returns modules by their number. */
function readChunks(chunks) {
  const modules = new Map();
  for (const chunk of chunks)
    for (const { expression } of parse(chunk, { sourceType: 'script' }).program.body) {
      if (!isCall(expression) || expression.callee.name !== '__d') continue;
      const [factory, { value: id }, map] = expression.arguments;
      const dependencies = (map.elements ?? map.properties).map((each) => each.value?.value ?? each.value);
      modules.set(id, readModule(factory, dependencies, chunk.slice(expression.start, expression.end)));
    }
  return modules;
}

/**
 * Each name that is asked of a module and is not there, and that may run.
 * @param chunks all scripts of one program, built and not yet made small.
 */
export function missingNames(chunks) {
  const modules = readChunks(chunks);
  const lacks = (id, name, seen = new Set()) => {
    const module = modules.get(id);
    if (!module || seen.has(id)) return false;
    const next = new Set(seen).add(id);
    if (module.whole !== null) return lacks(module.whole, name, next);
    if (!module.isKnown) return false;
    const passed = module.passes.find(({ as }) => as === name);
    if (passed) return lacks(passed.from, passed.name, next);
    if (module.gives.has(name)) return false;
    return name === 'default' || module.stars.every((from) => lacks(from, name, next));
  };
  const mayRun = (name, words) => !NEVER_RUN.some((each) => each.names.test(name) && words.includes(each.in));
  const missing = [];
  for (const { asks, words } of modules.values())
    for (const { from, name } of asks)
      if (lacks(from, name) && mayRun(name, words)) missing.push({ name, asking: beginningOf(words) });
  return { modules: modules.size, missing };
}

/** Enough of a module to tell which it is. */
const beginningOf = (words) =>
  words
    .slice(words.indexOf('{') + 1)
    .replace(/\s+/g, ' ')
    .slice(0, 240);
