import type { AcceptedFormat } from '../../core/refit/plan/accepted-formats.js';
import { byMediaType } from './by-media-type.js';

/**
 * Rules for nginx that send a modern format to browsers that accept it. The paths are those of the refit's own files, which
 * are plain letters.
 */
export function nginxRules(pairs: readonly AcceptedFormat[]): string {
  const types = byMediaType(pairs);
  return [
    '# Modern formats for browsers that accept them. Include this file in the http block, and add to the server block:',
    '#',
    '#   location ~* \\.(jpe?g|png|gif)$ {',
    '#     add_header Vary Accept;',
    '#     try_files $refit_uri $uri =404;',
    '#   }',
    '#',
    '# Paths are long keys: the http block needs this line ahead of all maps:',
    '#',
    '#   map_hash_bucket_size 512;',
    '#',
    '# The types of these formats must be in the types block (image/webp, image/avif).',
    'map $http_accept $refit_accepts {',
    '  default "";',
    ...[...types.keys()].map((type) => `  "~${type}" "${type}";`),
    '}',
    '',
    'map "$refit_accepts:$uri" $refit_uri {',
    '  default $uri;',
    ...[...types].flatMap(([type, some]) =>
      some.map(({ path, accepted }) => `  "${type}:/${path}" "/${accepted}";`),
    ),
    '}',
    '',
  ].join('\n');
}
