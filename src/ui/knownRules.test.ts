/** A browser that knows one foreign selector and not the others; its own style sheets stand in for it. */
const KNOWN = 'selector(::-moz-placeholder)';

test('a rule that the browser does not know is nothing, and all others stand as they are and in their places', () => {
  Object.assign(globalThis, { CSS: { supports: (asked: string) => asked === KNOWN } });
  const style = document.head.appendChild(document.createElement('style'));
  jest.isolateModules(() => void jest.requireActual('./knownRules'));
  const sheet = style.sheet!;
  for (const rule of [
    '.a{top:0}',
    '.b:-ms-clear{top:0}',
    '::-moz-placeholder{top:0}',
    '.c,.d::-moz-x{top:0}',
  ])
    sheet.insertRule(rule, sheet.cssRules.length);
  expect([...sheet.cssRules].map((rule) => (rule as CSSStyleRule).selectorText)).toEqual([
    '.a',
    ':not(*)',
    '::-moz-placeholder',
    ':not(*)',
  ]);
});
