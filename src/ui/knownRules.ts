/**
 * The style sheets of React Native are written for every browser, and a rule with another browser's selector is thrown back.
 * The throw is caught, but the browser notes its line, and for that reads the whole script once more: 50 ms before the first
 * page (measured in Chromium). To be imported before anything that makes a style sheet.
 */
const FOREIGN = /:-(?:moz|ms)-/;
/** Stands where the rule would: the sheets count their rules. */
const NOTHING = ':not(*){}';

const isKnown = (rule: string): boolean =>
  !FOREIGN.test(rule) ||
  rule
    .slice(0, rule.indexOf('{'))
    .split(',')
    .every((selector) => CSS.supports(`selector(${selector})`));

/* eslint-disable-next-line @typescript-eslint/unbound-method -- it is called with its own sheet below */
const { insertRule } = CSSStyleSheet.prototype;
CSSStyleSheet.prototype.insertRule = function (rule, index) {
  return insertRule.call(this, isKnown(rule) ? rule : NOTHING, index);
};

export {};
