/** What the findings of many files are summed up under, by the id of the finding. */
export const findingTitles: Readonly<Record<string, string>> = {
  unreadable: 'cannot be read',
  'placed-nowhere': 'fetched and placed nowhere',
  mislabelled: 'sent under a false type',
  'several-addresses': 'sent under several addresses',
  'too-few-pixels': 'blurred, too few pixels',
  'wrong-sizes': 'wrong or missing sizes',
  'lazy-first-screen': 'lazy in the first screen',
  'eager-below': 'fetched at once, seen later',
  'no-dimensions': 'no width and height',
  'no-alternative': 'no alternative text',
  nameless: 'a name that says nothing',
};
