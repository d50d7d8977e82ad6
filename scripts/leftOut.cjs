/** Zod carries its messages in fifty languages; the app needs one. */
const ZOD = /[\\/]zod[\\/]v4[\\/]/;

/**
 * Parts of libraries that no screen uses and that nothing reaches while it runs. Without them the first load is a
 * tenth smaller; the browser tests hold the app to its limit, and the build proves that no name is asked of them
 * (prove.mjs) but where it is said below why that never runs. What is left out of one file must be left out of its neighbours
 * too: the bundler remembers by folder where a name leads.
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
    names: /\/(standard-navigation|useSitemap|useScrollToTop)$/,
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

/** Where names are asked of what was left out, by words of the module that asks, and why that never runs. */
const NEVER_RUN = [
  {
    in: 'inst._zod.processJSONSchema',
    names: /(Processor|aggregateChecks)$/,
    because: 'no schema is written out as JSON Schema',
  },
  {
    in: 'Gildas Lormeau',
    names: /^pathToFileURL$/,
    because: 'it is asked for where there is no document; there is one',
  },
  {
    in: 'exports.stackRouterOverride',
    names:
      /^(appendScreenStackPropsToOptions|validateStackPresentation|mapProtectedScreen|StackScreen|StackHeader|StackSearchBar|StackTitle|StackToolbar)$/,
    because: 'pages lie in a slot, not in a stack with headers',
  },
  {
    in: 'exports.createNativeStackNavigator',
    names: /^NativeStackView$/,
    because: 'pages lie in a slot, not in a stack with headers',
  },
  {
    in: 'exports.ToastWrapper',
    names: /^(Animated|BottomTabBarHeightContext)$/,
    because: 'toasts are shown while developing only',
  },
  {
    in: 'exports.ErrorBoundary = ErrorBoundary',
    names: /^BottomTabBarHeightContext$/,
    because: 'the layout has an error boundary of its own',
  },
  { in: 'exports.LinkMenu', names: /^HrefPreview$/, because: 'no link is previewed' },
  { in: 'exports.ExpoRoot', names: /^Sitemap$/, because: 'app.json leaves the sitemap out' },
  { in: '"WebShape"', names: /^default$/, because: 'no drawing is touched; what is pressed lies around it' },
  {
    in: 'exports.stringifyTransformArrayProps',
    names: /^parse$/,
    because: 'transforms are given as properties, never as text',
  },
];

module.exports = { UNUSED, ZOD, NEVER_RUN };
