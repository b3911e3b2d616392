/**
 * The order in which the visits of a survey are read, everywhere: tables of them are matched by place. It does not depend on
 * that of the visits, so that two equal surveys print the same.
 */
export const visitOrder = 'depth, url, visit.rowid';
