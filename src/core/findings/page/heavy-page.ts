import { totalBytes } from '../../load/request.js';
import { grouped } from '../../base/thousands.js';
import type { PageCheck } from './page-case.js';

export const heavyPage: PageCheck = ({ page, policy }) => {
  const bytes = totalBytes(page.bytesByType);
  const limit = policy.ceilings.page;
  if (bytes <= limit) return undefined;
  return {
    id: 'heavy-page',
    message: `all of it has ${grouped(bytes)} bytes; a light page has under ${grouped(limit)} by the rule of thumb`,
  };
};
