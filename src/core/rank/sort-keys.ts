/** What rows can be sorted by, the largest first. */
export const sortKeys = ['waste', 'sent', 'needed', 'bytes', 'files', 'pages', 'time'] as const;
export type SortKey = (typeof sortKeys)[number];
