/** The festival's own host, and the two made-up ones that stand in for third parties. */
export const siteHost = 'brindlebay.test';
export const weatherHost = 'cdn.gullpost.test';
export const tagHost = 'tags.driftcount.test';
export const demoHosts = [siteHost, weatherHost, tagHost] as const;
