// A PostgreSQL server of a bench: from Debian's package, as the user that it brought, in a folder and on a port of its own.
import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, chownSync, mkdirSync, readdirSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';

/** @returns `database()` makes a new database and says its address; `close()` ends the server */
export async function startServer(folder) {
  const [newest] = readdirSync('/usr/lib/postgresql').sort((one, other) => other - one);
  const programs = `/usr/lib/postgresql/${newest}/bin`;
  const isRoot = process.getuid() === 0;
  const idOf = (flag) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout);
  const as = isRoot ? { uid: idOf('-u'), gid: idOf('-g') } : {};
  const home = join(folder, 'server');
  const data = join(home, 'data');
  chmodSync(folder, 0o755);
  mkdirSync(home);
  if (isRoot) chownSync(home, as.uid, as.gid);
  const run = (program, values) =>
    spawnSync(join(programs, program), values, { ...as, cwd: home, encoding: 'utf8' });
  run('initdb', ['-D', data, '-U', 'postgres', '-E', 'UTF8', '--locale', 'C.UTF-8', '-N']);
  const port = await freePort();
  const server = spawn(
    join(programs, 'postgres'),
    ['-D', data, '-p', String(port), '-h', '127.0.0.1', '-k', home],
    { ...as, cwd: home, stdio: 'ignore' },
  );
  const ask = (sql) =>
    run('psql', ['-h', '127.0.0.1', '-p', String(port), '-U', 'postgres', '-qAtc', sql]);
  while (ask('SELECT 1').status !== 0) await pause(100);
  let databases = 0;
  return {
    database: () => {
      const name = `bench_${++databases}`;
      ask(`CREATE DATABASE ${name}`);
      return `postgres://postgres@127.0.0.1:${port}/${name}`;
    },
    close: () =>
      new Promise((resolve) => {
        server.once('exit', resolve);
        server.kill('SIGINT');
      }),
  };
}

async function freePort() {
  const server = createServer();
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address();
  await new Promise((resolve) => server.close(resolve));
  return port;
}
