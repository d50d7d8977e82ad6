const { existsSync, readFileSync } = require('node:fs');
const path = require('node:path');
const { parse } = require('@babel/parser');

const SRC = path.join(__dirname, '..', 'src');
const ENDS = ['.ts', '.tsx', '/index.ts', '/index.tsx'];

/** The file of ours that a name stands for; null: it is a package's, or no source. */
function fileOf(from, name) {
  if (!name.startsWith('.') && !name.startsWith('@/')) return null;
  const base = name.startsWith('@/') ? path.join(SRC, name.slice(2)) : path.resolve(path.dirname(from), name);
  return ENDS.map((end) => base + end).find((file) => existsSync(file)) ?? null;
}

/** What a file gives out: each name that it only passes on, with where that comes from; the names of its own; all of others. */
function givesOut(file) {
  const { program } = parse(readFileSync(file, 'utf8'), {
    sourceType: 'module',
    plugins: ['typescript', 'jsx'],
  });
  const passed = new Map();
  const own = new Set();
  const all = [];
  for (const each of program.body) {
    if (each.type === 'ExportAllDeclaration' && each.exportKind !== 'type') all.push(each.source.value);
    if (each.type !== 'ExportNamedDeclaration' || each.exportKind === 'type') continue;
    for (const { local, exported, exportKind } of each.specifiers)
      if (exportKind === 'type') continue;
      else if (each.source) passed.set(exported.name, [each.source.value, local.name]);
      else own.add(exported.name);
    if (!each.declaration) continue;
    if (each.declaration.id) own.add(each.declaration.id.name);
    for (const { id } of each.declaration.declarations ?? []) own.add(id.name);
  }
  const isDoor = program.body.every(({ type, source }) => source && type.startsWith('Export'));
  return { passed, own, all, isDoor };
}

const known = new Map();
function gives(file) {
  if (!known.has(file)) known.set(file, givesOut(file));
  return known.get(file);
}

/** Where a name that a door passes on is made: the file, and what it is called there; null where that cannot be said. */
function madeIn(file, name) {
  const { passed, own, all, isDoor } = gives(file);
  if (own.has(name)) return { file, name };
  if (passed.has(name)) {
    const [source, local] = passed.get(name);
    const next = fileOf(file, source);
    return next && (gives(next).isDoor ? madeIn(next, local) : { file: next, name: local });
  }
  if (!isDoor) return null;
  for (const source of all) {
    const next = fileOf(file, source);
    const found = next && madeIn(next, name);
    if (found) return found;
  }
  return null;
}

/**
 * For Babel: what is imported through the door of a room is imported from the file in the room that makes it, so that a page
 * loads that file and not all that stands behind the door. The source stays as it is.
 */
module.exports = ({ types: t }) => ({
  name: 'doors',
  visitor: {
    ImportDeclaration(at, { filename }) {
      const { node } = at;
      if (!filename?.startsWith(SRC) || node.importKind === 'type' || node.specifiers.length === 0) return;
      const door = fileOf(filename, node.source.value);
      if (!door || !/\.tsx?$/.test(door) || !gives(door).isDoor) return;
      const left = [];
      const direct = [];
      for (const each of node.specifiers) {
        const isNamed = each.type === 'ImportSpecifier' && each.importKind !== 'type';
        const made = isNamed ? madeIn(door, each.imported.name) : null;
        if (!made) left.push(each);
        else
          direct.push(
            t.importDeclaration(
              [t.importSpecifier(each.local, t.identifier(made.name))],
              t.stringLiteral(`@/${path.relative(SRC, made.file).replace(/\.tsx?$/, '')}`),
            ),
          );
      }
      if (direct.length === 0) return;
      const isTyped = left.length > 0 && left.every(({ importKind }) => importKind === 'type');
      if (left.length > 0) {
        const rest = t.importDeclaration(left, node.source);
        if (isTyped) rest.importKind = 'type';
        direct.push(rest);
      }
      at.replaceWithMultiple(direct);
    },
  },
});
