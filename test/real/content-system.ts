import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { freePort } from '../support/free-port.js';

/** The packages that the content system and its server consist of. */
export const systemPackages = [
  ...['wordpress', 'wordpress-theme-twentytwentyone', 'mariadb-server', 'php-mysql', 'php-gd'],
  ...['apache2', 'libapache2-mod-php', 'php-xml', 'php-mbstring'],
];

/** A content system that runs on this machine, on loopback alone. */
export interface ContentSystem {
  /** With `/` at its end. */
  readonly origin: string;
  /** The folder that its server serves. */
  readonly root: string;
  readonly user: string;
  readonly password: string;
  /** Calls its API. */
  readonly post: (path: string, body: unknown) => Promise<Record<string, unknown>>;
  /** Uploads a picture through its API. */
  readonly upload: (name: string, body: Buffer) => Promise<Upload>;
  close(): Promise<void>;
}

/** A picture in the content system. */
export interface Upload {
  readonly id: number;
  /** Of the whole picture. */
  readonly url: string;
  /** Of the size that the system calls so; the whole picture if it made none. */
  readonly sized: (name: string) => string;
}

const password = 'kites over the bay';

/** Sets up the content system with its own database in a folder, and starts it. */
export async function startContentSystem(folder: string): Promise<ContentSystem> {
  const root = join(folder, 'site');
  const socket = join(folder, 'database.sock');
  const port = await freePort();
  const origin = `http://127.0.0.1:${port}/`;
  const database = await startDatabase(folder, socket);
  copySite(root);
  writeFileSync(join(root, 'wp-config.php'), configOf(socket, origin));
  must('chown', ['-R', 'www-data:www-data', folder]);
  must('chmod', ['755', folder]);
  const token = must('php', ['-r', setUp(root)])
    .split('\n')
    .at(-1)!;
  const server = startServer(folder, root, port);
  await answers(origin);
  const authorization = `Basic ${Buffer.from(`editor:${token}`).toString('base64')}`;
  const call = async (path: string, init: RequestInit) => {
    const response = await fetch(`${origin}index.php?rest_route=/wp/v2/${path}`, {
      ...init,
      method: 'POST',
      headers: { authorization, ...init.headers },
    });
    const text = await response.text();
    if (!response.ok) throw new Error(`${path}: ${response.status} ${text.slice(0, 500)}`);
    return JSON.parse(text) as Record<string, unknown>;
  };
  return {
    ...{ origin, root, user: 'editor', password },
    post: (path, body) =>
      call(path, {
        body: JSON.stringify(body),
        headers: { 'content-type': 'application/json' },
      }),
    upload: async (name, body) => {
      const media = await call('media', {
        body: new Uint8Array(body),
        headers: {
          'content-type': 'image/jpeg',
          'content-disposition': `attachment; filename="${name}"`,
        },
      });
      const url = String(media['source_url']);
      const details = media['media_details'] as { sizes?: Record<string, { source_url: string }> };
      const sized = (size: string) => details.sizes?.[size]?.source_url ?? url;
      return { id: Number(media['id']), url, sized };
    },
    close: async () => {
      await stop(server);
      await stop(database);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

async function startDatabase(folder: string, socket: string): Promise<ChildProcess> {
  const data = join(folder, 'database');
  mkdirSync(data, { recursive: true });
  const common = ['--no-defaults', `--datadir=${data}`, '--user=root'];
  must('mariadb-install-db', [...common, '--auth-root-authentication-method=normal']);
  const server = spawn(
    'mariadbd',
    [...common, `--socket=${socket}`, '--skip-networking', '--skip-log-bin'],
    { stdio: 'ignore' },
  );
  const ask = (sql: string) =>
    spawnSync('mariadb', ['--no-defaults', `--socket=${socket}`, '-u', 'root', '-e', sql]).status;
  for (let times = 0; ask('SELECT 1') !== 0; times++) {
    if (times > 300) throw new Error('the database does not answer');
    await pause(100);
  }
  ask(
    "CREATE DATABASE site; CREATE USER site@localhost IDENTIFIED BY 'site'; GRANT ALL ON site.* TO site@localhost",
  );
  return server;
}

function copySite(root: string): void {
  const own = { recursive: true, dereference: true } as const;
  cpSync('/usr/share/wordpress', root, {
    ...own,
    filter: (path) => !path.endsWith('wp-config.php'),
  });
  rmSync(join(root, 'wp-content'), { recursive: true, force: true });
  cpSync('/var/lib/wordpress/wp-content', join(root, 'wp-content'), own);
  mkdirSync(join(root, 'wp-content/uploads'), { recursive: true });
}

function configOf(socket: string, origin: string): string {
  const constants: Record<string, string | boolean> = {
    DB_NAME: 'site',
    DB_USER: 'site',
    DB_PASSWORD: 'site',
    DB_HOST: `localhost:${socket}`,
    DB_CHARSET: 'utf8mb4',
    WP_HOME: origin.slice(0, -1),
    WP_SITEURL: origin.slice(0, -1),
    // Passwords of applications are refused over plain HTTP elsewhere.
    WP_ENVIRONMENT_TYPE: 'local',
    WP_HTTP_BLOCK_EXTERNAL: true,
    DISABLE_WP_CRON: true,
    AUTOMATIC_UPDATER_DISABLED: true,
    ...Object.fromEntries(
      ['AUTH_KEY', 'SECURE_AUTH_KEY', 'LOGGED_IN_KEY', 'NONCE_KEY'].flatMap((name) => [
        [name, name],
        [name.replace('KEY', 'SALT'), name],
      ]),
    ),
  };
  return [
    '<?php',
    "$table_prefix = 'wp_';",
    ...Object.entries(constants).map(
      ([name, value]) => `define('${name}', ${JSON.stringify(value)});`,
    ),
    "if (!defined('ABSPATH')) define('ABSPATH', __DIR__ . '/');",
    "require_once ABSPATH . 'wp-settings.php';",
  ].join('\n');
}

/** Installs the site, and prints a password for its API as the last line. */
function setUp(root: string): string {
  return `
    define('WP_INSTALLING', true);
    $_SERVER['HTTP_HOST'] = 'localhost';
    require '${root}/wp-load.php';
    require ABSPATH . 'wp-admin/includes/upgrade.php';
    wp_install('Brindle Bay Kite Festival', 'editor', 'editor@brindlebay.test', true, '', '${password}');
    switch_theme('twentytwentyone');
    [$token] = WP_Application_Passwords::create_new_application_password(1, ['name' => 'seed']);
    echo "\\n" . $token;`;
}

function startServer(folder: string, root: string, port: number): ChildProcess {
  const modules = '/usr/lib/apache2/modules';
  const php = existsSync(`${modules}/libphp8.2.so`) ? 'libphp8.2.so' : 'libphp.so';
  const names = ['mpm_prefork', 'authz_core', 'dir', 'mime', 'rewrite', 'headers'];
  const config = [
    `ServerRoot ${folder}`,
    `PidFile ${folder}/server.pid`,
    `Listen 127.0.0.1:${port}`,
    'ServerName 127.0.0.1',
    'User www-data',
    'Group www-data',
    `ErrorLog ${folder}/server.log`,
    ...names.map((name) => `LoadModule ${name}_module ${modules}/mod_${name}.so`),
    `LoadModule php_module ${modules}/${php}`,
    'TypesConfig /etc/mime.types',
    '<FilesMatch "\\.php$">',
    '  SetHandler application/x-httpd-php',
    '</FilesMatch>',
    'php_value upload_max_filesize 64M',
    'php_value post_max_size 64M',
    'php_value memory_limit 512M',
    `DocumentRoot ${root}`,
    `<Directory ${root}>`,
    '  AllowOverride All',
    '  Options FollowSymLinks',
    '  Require all granted',
    '  DirectoryIndex index.php',
    '</Directory>',
  ].join('\n');
  writeFileSync(join(folder, 'server.conf'), `${config}\n`);
  // It ends all of its process group, which therefore must not be ours.
  const call = ['-f', join(folder, 'server.conf'), '-DFOREGROUND'];
  return spawn('apache2', call, { stdio: 'ignore', detached: true });
}

async function answers(origin: string): Promise<void> {
  for (let times = 0; times < 100; times++) {
    const response = await fetch(origin).catch(() => undefined);
    if (response?.ok) return;
    await pause(100);
  }
  throw new Error('the content system does not answer');
}

async function stop(child: ChildProcess): Promise<void> {
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await Promise.race([ended, pause(10_000)]);
  if (child.exitCode === null) child.kill('SIGKILL');
}

function must(program: string, values: readonly string[]): string {
  const { status, stdout, stderr, error } = spawnSync(program, values, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${program}: ${error?.message ?? stderr ?? stdout}`);
  return stdout;
}
