import { existsSync, readFileSync, rmSync } from 'node:fs';

/** Prints the table when all attacks have been made; tests find its file by the variable. */
export default async function setup(): Promise<() => void> {
  process.env['LYNX_ATTACKS'] = String(process.pid);
  const { fatesFile } = await import('./fates.js');
  rmSync(fatesFile, { force: true });
  return () => {
    if (!existsSync(fatesFile)) return;
    const fates = readFileSync(fatesFile, 'utf8').trim().split('\n');
    const rows = ['held', 'bounded', 'told'].map(
      (fate) => `${fate.padEnd(8)} ${fates.filter((one) => one === fate).length}`,
    );
    process.stdout.write(
      `\n${['attacks that went as they should', `tried    ${fates.length}`, ...rows].join('\n')}\n`,
    );
    rmSync(fatesFile, { force: true });
  };
}
