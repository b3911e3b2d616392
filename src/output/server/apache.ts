import type { AcceptedFormat } from '../../core/refit/plan/accepted-formats.js';
import { byMediaType } from './by-media-type.js';

/** Rules for Apache, for a `.htaccess` file in the root of the site. */
export function apacheRules(pairs: readonly AcceptedFormat[]): string {
  const types = byMediaType(pairs);
  const parts = [...types].flatMap(([type, some]) => [
    `  # Browsers that do not accept ${type} skip the rules for it.`,
    `  RewriteCond %{HTTP_ACCEPT} !${type.replace('/', '\\/')}`,
    `  RewriteRule ^ - [S=${some.length}]`,
    ...some.map(
      ({ path, accepted }) =>
        `  RewriteRule ^${path.replace(/[.\\+*?^$(){}|[\]]/g, '\\$&')}$ ${accepted} [T=${type},L]`,
    ),
  ]);
  return [
    '# Modern formats for browsers that accept them: put this into .htaccess in the root of the site, ahead of other rules.',
    '<IfModule mod_rewrite.c>',
    '  RewriteEngine On',
    ...parts,
    '</IfModule>',
    '<IfModule mod_mime.c>',
    ...[...types.keys()].map((type) => `  AddType ${type} .${type.replace('image/', '')}`),
    '</IfModule>',
    '<IfModule mod_headers.c>',
    '  <FilesMatch "\\.(?:jpe?g|png|gif|webp|avif)$">',
    '    Header merge Vary Accept',
    '  </FilesMatch>',
    '</IfModule>',
    '',
  ].join('\n');
}
