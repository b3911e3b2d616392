import { existsSync, readFileSync, rmSync } from 'node:fs';
import { fatesFile } from './attack.js';

/** Prints the table when all attacks have been made. */
export default function setup(): () => void {
  rmSync(fatesFileOfMain, { force: true });
  return () => {
    if (!existsSync(fatesFileOfMain)) return;
    const fates = readFileSync(fatesFileOfMain, 'utf8').trim().split('\n');
    const count = (fate: string) => fates.filter((one) => one === fate).length;
    process.stdout.write(
      `\ntried ${fates.length} · held ${count('held')} · bounded ${count('bounded')} · told ${count('told')}\n`,
    );
    rmSync(fatesFileOfMain, { force: true });
  };
}

const fatesFileOfMain = fatesFile;
