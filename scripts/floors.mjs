/**
 * The floors of the house, from the ground up. A room may import from lower floors only; rooms on one floor do not
 * import one another. The linter and the drawing in ARCHITECTURE.md follow this list.
 */
export const floors = [
  ['core/base', 'core/address'],
  ['core/pixels', 'core/slots', 'core/visitors'],
  ['core/policy', 'core/load'],
  ['core/survey', 'core/trial'],
  ['core/findings', 'core/waste'],
  ['core/rank'],
  ['core/refit'],
  ['core/report', 'core/history', 'core/budgets'],
  ['reach', 'system'],
  ['browser', 'crawl', 'images', 'output', 'replay', 'store', 'texts'],
  ['tasks'],
  ['cli'],
];
