import { cpSync, existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { parse } from 'csv-parse/sync';
import sharp from 'sharp';
import type { ContentSystem } from './content-system.js';

/** One change of an element, as a refit tells it. */
interface Change {
  readonly action: string;
  readonly element: string;
  readonly name?: string;
  readonly value?: string;
}

/** What a refit hands over as markup. */
interface SnippetsDocument {
  readonly snippets: readonly {
    readonly language: 'html' | 'css';
    readonly places: readonly { readonly page: string; readonly selector: string }[];
    readonly before: string | null;
    readonly changes: readonly Change[];
  }[];
}

/** Files of a refit that would make smaller what is at their place now. */
export async function smallerFiles(refit: string, root: string): Promise<string[]> {
  const found: string[] = [];
  for (const path of picturesIn(refit)) {
    if (!existsSync(join(root, path))) continue;
    const [was, is] = await Promise.all(
      [root, refit].map((folder) => sharp(join(folder, path)).metadata()),
    );
    if (is!.width < was!.width || is!.height < was!.height) found.push(path);
  }
  return found;
}

function picturesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter(
    (path) => /\.(?:jpe?g|png|gif|webp|avif)$/.test(path) && !path.startsWith('review'),
  );
}

/**
 * Does what the papers of a refit say, and nothing else: has the system make the widths, copies the files over the site, puts the rules for the server into
 * its `.htaccess`, and makes the changes of each snippet where the system prints its element, as a template would.
 */
export function deploy(refit: string, { root }: ContentSystem): void {
  makeWidths(root, widthsToMake(refit));
  for (const path of picturesIn(refit)) cpSync(join(refit, path), join(root, path));
  cpSync(join(refit, 'server/htaccess'), join(root, '.htaccess'));
  const { snippets } = JSON.parse(
    readFileSync(join(refit, 'snippets.json'), 'utf8'),
  ) as SnippetsDocument;
  const byPage: Record<string, { before: string; changes: readonly Change[] }[]> = {};
  for (const { language, places, before, changes } of snippets)
    if (language === 'html' && before !== null)
      for (const { page } of places) {
        const { pathname, search } = new URL(page);
        (byPage[pathname + search] ??= []).push({ before, changes });
      }
  const plugins = join(root, 'wp-content/mu-plugins');
  mkdirSync(plugins, { recursive: true });
  writeFileSync(join(plugins, 'markup.json'), JSON.stringify(byPage));
  cpSync(new URL('markup.php', import.meta.url), join(plugins, 'markup.php'));
}

/** The widths that the work list says the site should make as well. */
function widthsToMake(refit: string): number[] {
  const rows = parse<Record<string, string>>(readFileSync(join(refit, 'worklist.csv')), {
    columns: true,
  });
  const row = rows.find(({ what }) => what?.startsWith('have the site make these widths'));
  return (row?.['to'] ?? '').match(/\d+/g)?.map(Number) ?? [];
}

/** Enters widths into the system, and has it make them of the pictures that it has. */
function makeWidths(root: string, widths: readonly number[]): void {
  const plugins = join(root, 'wp-content/mu-plugins');
  mkdirSync(plugins, { recursive: true });
  const sizes = widths.map((width) => `add_image_size('width-${width}', ${width});`);
  writeFileSync(join(plugins, 'widths.php'), ['<?php', ...sizes, ''].join('\n'));
  const { status, stderr, stdout } = spawnSync('php', ['-r', makeMissing(root)], {
    encoding: 'utf8',
  });
  if (status !== 0) throw new Error(stderr || stdout);
}

const makeMissing = (root: string) => `
  $_SERVER['HTTP_HOST'] = 'localhost';
  require '${root}/wp-load.php';
  require_once ABSPATH . 'wp-admin/includes/image.php';
  foreach (get_posts(['post_type' => 'attachment', 'numberposts' => -1]) as $one)
    wp_update_image_subsizes($one->ID);`;
