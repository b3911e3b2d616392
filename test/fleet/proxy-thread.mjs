// Passes on what a program and a server say, until it is told to cut them off.
import { connect, createServer } from 'node:net';
import { setInterval } from 'node:timers';
import { parentPort, workerData } from 'node:worker_threads';

const { port, cut } = workerData;
const bytes = new Uint8Array(cut);

const isMute = () => Atomics.load(bytes, 255) === 1;

/** How a connection is to be cut: before the server hears the word, after it, or when it is the server that says it. */
const [unheard, heard, said] = [0, 1, 2];

/** Whether a connection is to be cut now; once. */
function isTime(chunk, ...ways) {
  const length = Atomics.load(bytes, 0);
  if (length === 0 || !ways.includes(bytes[1])) return false;
  if (!chunk.includes(Buffer.from(bytes.slice(2, 2 + length)))) return false;
  Atomics.store(bytes, 0, 0);
  return true;
}

const server = createServer((program) => {
  const database = connect(port, '127.0.0.1');
  let isCut = false;
  program.on('data', (chunk) => {
    if (isMute()) return;
    if (!isTime(chunk, unheard, heard)) return void database.write(chunk);
    isCut = true;
    if (bytes[1] === heard) database.write(chunk);
    else database.destroy();
    // The server has heard it before the program misses its answer.
    setTimeout(() => program.destroy(), 50);
  });
  database.on('data', (chunk) => {
    if (isCut || isMute()) return;
    if (!isTime(chunk, said)) return void program.write(chunk);
    isCut = true;
    program.destroy();
  });
  for (const [one, other] of [
    [program, database],
    [database, program],
  ]) {
    one.on('error', () => {});
    one.on('close', () => (isCut && one === program ? other.end() : other.destroy()));
  }
});
let own = 0;
server.listen(0, '127.0.0.1', () => {
  own = server.address().port;
  parentPort.postMessage(own);
});
// A network that is cut lets nobody in either.
setInterval(() => {
  if (isMute() && server.listening) server.close();
  if (!isMute() && !server.listening) server.listen(own, '127.0.0.1');
}, 50);
