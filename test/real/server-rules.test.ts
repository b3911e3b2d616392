import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { chmodSync, cpSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { apacheDelivery, nginxDelivery } from '../../src/output/server/delivery.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';
import { oneView, run } from '../support/program.js';
import { freePort } from '../support/free-port.js';
import { providePackages } from '../support/packages.js';

const missing = providePackages(['nginx-light', 'apache2']);
if (missing) process.stderr.write(`skipped: ${missing}\n`);

/** Everything that findings can ask of a server. */
const delivery = {
  ...{ compress: true, keep: true, askAgain: true, keepAlive: true, share: true },
  joins: [],
};

let cwd: string;
const running: ChildProcess[] = [];

/** A site of one picture, refitted, with the files of the refit copied over it. */
beforeAll(async () => {
  if (missing) return;
  cwd = temporaryFolder(() => {});
  // Servers read it as users of their own.
  chmodSync(cwd, 0o755);
  writeFiles(cwd, {
    'site/index.html':
      '<img src="/img/kite.jpg" width="300" height="200"><img src="/img/plain.svg" width="9">',
    'site/site.css': `body { margin: 0 }\n${'/* kites */'.repeat(300)}`,
    'site/app.0a1b2c3d.js': `/* ${'wind '.repeat(500)}*/`,
    'delivery-nginx.conf': nginxDelivery(delivery),
    'site/delivery/.htaccess': apacheDelivery(delivery),
    'site/delivery/site.css': 'body { margin: 0 }\n'.repeat(200),
    'site/delivery/app.0a1b2c3d.js': `/* ${'wind '.repeat(500)}*/`,
    'site/delivery/index.html': '<p>Kites</p>'.repeat(200),
    'site/img/kite.jpg': await scene(1_200, 800).jpeg({ quality: 95 }).toBuffer(),
    'site/img/plain.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
  });
  await run(['survey', 'site', ...oneView], { cwd });
  await run(['refit', '--out', 'refit', '--review', '0'], { cwd });
  cpSync(join(cwd, 'refit/img'), join(cwd, 'site/img'), { recursive: true });
});
afterAll(async () => {
  for (const child of running) child.kill('SIGTERM');
  await pause(200);
});

async function startServer(
  name: string,
  configOf: (port: number, folder: string) => string,
  callOf: (config: string) => readonly string[],
): Promise<string> {
  const folder = join(cwd, name);
  mkdirSync(folder);
  const port = await freePort();
  const config = join(folder, 'server.conf');
  writeFileSync(config, configOf(port, folder));
  const log = join(folder, 'output');
  // Apache ends all of its process group.
  running.push(
    spawn('sh', ['-c', `exec ${name} ${callOf(config).join(' ')} >${log} 2>&1`], {
      detached: true,
    }),
  );
  const origin = `http://127.0.0.1:${port}`;
  let last = 0;
  for (let times = 0; times < 100; times++) {
    const response = await fetch(`${origin}/index.html`).catch(() => undefined);
    last = response?.status ?? last;
    if (response?.ok) return origin;
    await pause(100);
  }
  throw new Error(`${name}: ${last} ${existsSync(log) ? readFileSync(log, 'utf8') : ''}`);
}

/** What a server sends for the picture to a browser that accepts something. */
async function sent(origin: string, path: string, accept: string) {
  const { status, headers } = await fetch(origin + path, { headers: { accept } });
  return [status, headers.get('content-type'), headers.get('vary')?.toLowerCase() ?? null];
}

async function expectChoice(origin: string): Promise<void> {
  const modern = 'image/avif,image/webp,*/*';
  expect(await sent(origin, '/img/kite.jpg', modern)).toEqual([200, 'image/avif', 'accept']);
  expect(await sent(origin, '/img/kite.jpg', 'image/png,*/*')).toEqual([
    ...[200, 'image/jpeg', 'accept'],
  ]);
  expect((await sent(origin, '/img/plain.svg', modern)).slice(0, 2)).toEqual([
    ...[200, 'image/svg+xml'],
  ]);
  expect((await sent(origin, '/img/gone.jpg', modern))[0]).toBe(404);
}

/** What is said of how files are compressed and kept. */
async function expectDelivery(origin: string, folder: string): Promise<void> {
  const told = async (path: string) => {
    const { status, headers } = await fetch(`${origin}${folder}${path}`);
    return [status, headers.get('content-encoding'), headers.get('cache-control')];
  };
  expect(await told('/site.css')).toEqual([200, 'gzip', 'max-age=604800']);
  expect(await told('/app.0a1b2c3d.js')).toEqual([...[200, 'gzip', 'max-age=31536000, immutable']]);
  expect((await told('/index.html'))[2]).toBe('no-cache');
}

describe.skipIf(missing)('the rules for servers', () => {
  it('have nginx choose the format', async () => {
    const origin = await startServer(
      'nginx',
      (port, folder) => `
        pid ${folder}/pid; error_log stderr; daemon off; worker_processes 1; user root;
        events {}
        http {
          access_log off;
          client_body_temp_path ${folder}/body; proxy_temp_path ${folder}/proxy;
          fastcgi_temp_path ${folder}/fastcgi; uwsgi_temp_path ${folder}/uwsgi; scgi_temp_path ${folder}/scgi;
          types { text/html html; text/css css; text/javascript js; image/jpeg jpg; image/webp webp; image/avif avif; image/svg+xml svg; }
          map_hash_bucket_size 512;
          include ${cwd}/refit/server/nginx.conf;
          include ${cwd}/delivery-nginx.conf;
          server {
            listen 127.0.0.1:${port}; root ${cwd}/site;
            location ~* \\.(jpe?g|png|gif)$ { add_header Vary Accept; try_files $refit_uri $uri =404; }
          }
        }`,
      (config) => ['-c', config],
    );
    await expectChoice(origin);
    await expectDelivery(origin, '');
  });

  it('have Apache choose the format', async () => {
    cpSync(join(cwd, 'refit/server/htaccess'), join(cwd, 'site/.htaccess'));
    const modules = '/usr/lib/apache2/modules';
    const names = ['mpm_event', 'authz_core', 'mime', 'rewrite', 'headers', 'filter', 'deflate'];
    const origin = await startServer(
      'apache2',
      (port, folder) =>
        [
          `ServerRoot ${folder}`,
          `PidFile ${folder}/pid`,
          `Listen 127.0.0.1:${port}`,
          'ServerName 127.0.0.1',
          'User www-data',
          'Group www-data',
          `ErrorLog ${folder}/errors`,
          ...names.map((one) => `LoadModule ${one}_module ${modules}/mod_${one}.so`),
          'TypesConfig /etc/mime.types',
          `DocumentRoot ${cwd}/site`,
          `<Directory ${cwd}/site>`,
          '  AllowOverride All',
          '  Options FollowSymLinks',
          '  Require all granted',
          '</Directory>',
          '',
        ].join('\n'),
      (config) => ['-f', config, '-DFOREGROUND'],
    );
    await expectChoice(origin);
    await expectDelivery(origin, '/delivery');
  });
});
