import type { DeliverySettings } from '../../core/refit/work/delivery.js';

/** Media types of texts that servers do not compress by themselves. */
const textTypes = [
  'text/css',
  'text/javascript',
  'application/javascript',
  'application/json',
  'application/manifest+json',
  'application/xml',
  'application/rss+xml',
  'image/svg+xml',
  'font/ttf',
  'font/otf',
] as const;

const endings = 'css|m?js|woff2?|ttf|otf|svg|png|jpe?g|gif|webp|avif|ico';
const named = '[._-](?=[a-f]*[0-9])[0-9a-f]{8,64}(?=[._-])';
const year = 'max-age=31536000, immutable';
const week = 'max-age=604800';

/** Settings for nginx, to be included in the http block. */
export function nginxDelivery(settings: DeliverySettings): string {
  const { compress, keep, askAgain, keepAlive, share } = settings;
  return [
    '# What the findings of the survey ask of the server. Include this file in the http block.',
    ...(compress
      ? [
          '',
          '# Texts compressed (uncompressed-text). text/html always is.',
          'gzip on;',
          'gzip_vary on;',
          'gzip_comp_level 6;',
          'gzip_min_length 1000;',
          'gzip_proxied any;',
          `gzip_types ${textTypes.join(' ')};`,
        ]
      : []),
    ...(keep || askAgain
      ? [
          '',
          '# What browsers keep (short-lifetime, long-lived-document). A server or location that has an add_header of its',
          '# own needs the line add_header beside it.',
          'map $uri $delivery_lifetime {',
          '  default "";',
          ...(keep
            ? [
                `  "~*${named}[^/]*\\.(?:${endings})$" "${year}";`,
                `  "~*\\.(?:${endings})$" "${week}";`,
              ]
            : []),
          ...(askAgain ? ['  "~*(?:/|\\.html?)$" "no-cache";'] : []),
          '}',
          'add_header Cache-Control $delivery_lifetime;',
        ]
      : []),
    ...(keepAlive
      ? [
          '',
          '# Connections kept open (closing-server).',
          'keepalive_timeout 65s;',
          'keepalive_requests 1000;',
        ]
      : []),
    ...(share
      ? [
          '',
          '# HTTP/2 (old-protocol, many-files): write this into the server block that listens with TLS; before version 1.25.1',
          '# it is the word http2 in the line listen.',
          '#   http2 on;',
        ]
      : []),
    '',
  ].join('\n');
}

/** Settings for Apache, for a `.htaccess` file in the root of the site. */
export function apacheDelivery(settings: DeliverySettings): string {
  const { compress, keep, askAgain, keepAlive, share } = settings;
  const header = (pattern: string, value: string) => [
    `  <FilesMatch "${pattern}">`,
    `    Header set Cache-Control "${value}"`,
    '  </FilesMatch>',
  ];
  return [
    '# What the findings of the survey ask of the server: put this into .htaccess in the root of the site.',
    ...(compress
      ? [
          '',
          '# Texts compressed (uncompressed-text).',
          '<IfModule mod_deflate.c>',
          `  AddOutputFilterByType DEFLATE text/html text/plain ${textTypes.join(' ')}`,
          '</IfModule>',
        ]
      : []),
    ...(keep || askAgain
      ? [
          '',
          '# What browsers keep (short-lifetime, long-lived-document).',
          '<IfModule mod_headers.c>',
          ...(keep
            ? [
                ...header(`\\.(?:${endings})$`, week),
                ...header(`${named}[^/]*\\.(?:${endings})$`, year),
              ]
            : []),
          ...(askAgain ? header('\\.html?$', 'no-cache') : []),
          '</IfModule>',
        ]
      : []),
    ...(keepAlive || share
      ? [
          '',
          '# These belong into the configuration of the server itself, not into .htaccess:',
          ...(keepAlive ? ['#   KeepAlive On', '#   MaxKeepAliveRequests 1000'] : []),
          ...(share ? ['#   Protocols h2 http/1.1'] : []),
        ]
      : []),
    '',
  ].join('\n');
}

/** The same as a list of headers, for servers of any kind. */
export function headerList(settings: DeliverySettings): string {
  const { compress, keep, askAgain, keepAlive, share, joins } = settings;
  const lines = [
    ...(compress
      ? [
          'texts (HTML, CSS, JavaScript, JSON, SVG)\tContent-Encoding: br or gzip',
          '\tVary: Accept-Encoding',
        ]
      : []),
    ...(keep
      ? [
          `files whose name changes with their content\tCache-Control: ${year}`,
          `other style sheets, scripts, fonts and images\tCache-Control: ${week}`,
        ]
      : []),
    ...(askAgain ? ['documents\tCache-Control: no-cache', '\tETag or Last-Modified'] : []),
    ...(keepAlive ? ['all responses over HTTP/1.1\tno Connection: close'] : []),
    ...(share ? ['all responses\tHTTP/2 or HTTP/3'] : []),
  ];
  const joined = joins.flatMap(({ what, files }) => [
    '',
    `Join to one file, in this order (${what}):`,
    ...files,
  ]);
  return [...lines, ...joined, ''].join('\n');
}
