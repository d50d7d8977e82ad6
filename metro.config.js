const { createHash } = require('node:crypto');
const { readdirSync, readFileSync } = require('node:fs');
const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');
const { UNUSED, ZOD } = require('./scripts/leftOut.cjs');
const { allUsed } = require('./scripts/slim.cjs');

const config = getDefaultConfig(__dirname);

/** The form that packs with the browser's own means: the usual one brings a compiled module that the page's policy forbids. */
const ZIP = path.join(__dirname, 'node_modules/@zip.js/zip.js/index-native.cjs');

/** The flags of native screens are all that is asked of them here; the screens bring all of Animated. */
const SCREENS = path.join(__dirname, 'node_modules/react-native-screens/lib/module/flags.js');

config.resolver.resolveRequest = (context, name, platform) => {
  if (name === '@zip.js/zip.js') return { type: 'sourceFile', filePath: ZIP };
  if (name === 'react-native-screens') return { type: 'sourceFile', filePath: SCREENS };
  const origin = context.originModulePath;
  if (name === '../locales/index.js' && ZOD.test(origin))
    return context.resolveRequest(context, '../locales/en.js', platform);
  if (UNUSED.some(({ from, names }) => from.test(origin) && names.test(name))) return { type: 'empty' };
  return context.resolveRequest(context, name, platform);
};

// What a file becomes depends on what the doors of rooms say (scripts/doors.cjs), and a package on what is used of it (scripts/slim.cjs).
const doors = readdirSync(path.join(__dirname, 'src'), { recursive: true })
  .filter((file) => path.basename(file) === 'index.ts')
  .map((file) => path.join('src', file))
  .sort();
const said = createHash('sha256');
for (const file of [...doors, 'scripts/doors.cjs', 'scripts/slim.cjs'])
  said.update(readFileSync(path.join(__dirname, file)));
said.update(allUsed().join());
config.cacheVersion = said.digest('hex');

module.exports = config;
