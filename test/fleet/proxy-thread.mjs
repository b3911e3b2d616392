// Passes on what a program and a server say, until it is told to cut them off.
import { connect, createServer } from 'node:net';
import { setInterval } from 'node:timers';
import { parentPort, workerData } from 'node:worker_threads';

const { port, cut } = workerData;
const bytes = new Uint8Array(cut);

const isMute = () => Atomics.load(bytes, 255) === 1;

const server = createServer((program) => {
  const database = connect(port, '127.0.0.1');
  let isCut = false;
  program.on('data', (chunk) => {
    if (isMute()) return;
    const length = Atomics.load(bytes, 0);
    const word = Buffer.from(bytes.slice(2, 2 + length));
    if (length === 0 || !chunk.includes(word)) return void database.write(chunk);
    Atomics.store(bytes, 0, 0);
    isCut = true;
    if (bytes[1] === 1) database.write(chunk);
    else database.destroy();
    // The server has heard it before the program misses its answer.
    setTimeout(() => program.destroy(), 50);
  });
  database.on('data', (chunk) => isCut || isMute() || program.write(chunk));
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
