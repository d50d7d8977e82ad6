const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

/** Zod carries its messages in fifty languages; the app needs one. */
const ZOD = /[\\/]zod[\\/]v4[\\/]/;

/**
 * Parts of libraries that no screen uses and that nothing reaches while it runs. Without them the first load is a
 * tenth smaller; the browser tests hold the app to its limit.
 */
const UNUSED = [
  {
    from: /react-native-web[\\/]dist/,
    names: /(Virtualized(Section)?List|FlatList|SectionList|FillRateHelper)$/,
  },
  { from: /expo-router[\\/]build[\\/]exports\.js$/, names: /layouts\/(Tabs|experimental-stack)$/ },
  { from: /expo-router[\\/]build[\\/](views|native-tabs)[\\/]/, names: /react-navigation\/bottom-tabs/ },
  { from: /expo-router[\\/]build[\\/]stack[\\/]/, names: /layouts\/Stack$/ },
  { from: ZOD, names: /(compile|from-json-schema|json-schema-processors|json-schema-generator)\.js$/ },
];

/** The form that packs with the browser's own means: the usual one brings a compiled module that the page's policy forbids. */
const ZIP = path.join(__dirname, 'node_modules/@zip.js/zip.js/index-native.cjs');

config.resolver.resolveRequest = (context, name, platform) => {
  if (name === '@zip.js/zip.js') return { type: 'sourceFile', filePath: ZIP };
  const origin = context.originModulePath;
  if (name === '../locales/index.js' && ZOD.test(origin))
    return context.resolveRequest(context, '../locales/en.js', platform);
  if (UNUSED.some(({ from, names }) => from.test(origin) && names.test(name))) return { type: 'empty' };
  return context.resolveRequest(context, name, platform);
};

module.exports = config;
