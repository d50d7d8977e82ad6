const { createHash } = require('node:crypto');
const { readdirSync, readFileSync } = require('node:fs');
const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');
const { allUsed } = require('./scripts/slim.cjs');

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
  {
    from: /react-native-web[\\/]dist[\\/]index\.js$/,
    names:
      /exports\/(Animated|Button|CheckBox|Clipboard|Easing|ImageBackground|InputAccessoryView|LayoutAnimation|Modal|PanResponder|Picker|ProgressBar|Share|Switch|Touchable(\w*)|Vibration|YellowBox)$/,
  },
  { from: /expo-router[\\/]build[\\/]exports\.js$/, names: /layouts\/(Tabs|experimental-stack)$/ },
  { from: /expo-router[\\/]build[\\/](views|native-tabs)[\\/]/, names: /react-navigation\/bottom-tabs/ },
  { from: /expo-router[\\/]build[\\/]stack[\\/]/, names: /layouts\/Stack$/ },
  // Pages lie in a slot, not in a stack with headers; of the stack's module only its router is used.
  { from: /expo-router[\\/]build[\\/]layouts[\\/]StackClient\.js$/, names: /\/stack-utils$/ },
  {
    from: /fork[\\/]native-stack[\\/]createNativeStackNavigator\.js$/,
    names: /react-navigation\/native-stack$/,
  },
  { from: /expo-router[\\/]build[\\/]link[\\/]elements\.js$/, names: /\/HrefPreview$/ },
  { from: /expo-router[\\/]build[\\/](ExpoRoot|exports|getRoutes)\.js$/, names: /views\/Sitemap$/ },
  {
    from: /expo-router[\\/]build[\\/]exports\.js$/,
    names: /\/(standard-navigation|SuspenseFallback|useSitemap|useScrollToTop)$/,
  },
  { from: /react-navigation[\\/]routers[\\/]index\.js$/, names: /\/(Drawer|Tab)Router$/ },
  {
    from: /react-navigation[\\/](core|native)[\\/]index\.js$/,
    names: /\/(StaticNavigation|createStaticNavigation)$/,
  },
  // Drawings written as text, drawings that are touched, and transforms that are read back from text.
  { from: /react-native-svg[\\/].*ReactNativeSVG\.web\.js$/, names: /\/(xml|deprecated|fetchData)$/ },
  { from: /react-native-svg[\\/].*WebShape\.js$/, names: /\/SvgTouchableMixin$/ },
  { from: /react-native-svg[\\/].*extractTransform\.js$/, names: /\/transform(ToRn)?$/ },
  { from: ZOD, names: /(compile|from-json-schema|json-schema-processors|json-schema-generator)\.js$/ },
];

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
