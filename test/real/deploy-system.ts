import { cpSync, existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import type { ContentSystem } from './content-system.js';

/** What a refit hands over as markup. */
interface SnippetsDocument {
  readonly snippets: readonly {
    readonly language: 'html' | 'css';
    readonly places: readonly { readonly page: string; readonly selector: string }[];
    readonly before: string | null;
    readonly text: string;
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
 * Does what the papers of a refit say, and nothing else: copies the files over the site, puts the rules for the server into
 * its `.htaccess`, and each snippet in the place of the element that it replaces, as a template of the system would.
 */
export function deploy(refit: string, { root }: ContentSystem): void {
  for (const path of picturesIn(refit)) cpSync(join(refit, path), join(root, path));
  cpSync(join(refit, 'server/htaccess'), join(root, '.htaccess'));
  const { snippets } = JSON.parse(
    readFileSync(join(refit, 'snippets.json'), 'utf8'),
  ) as SnippetsDocument;
  const byPage: Record<string, Record<string, string>> = {};
  for (const { language, places, before, text } of snippets)
    if (language === 'html' && before !== null)
      for (const { page } of places) {
        const { pathname, search } = new URL(page);
        (byPage[pathname + search] ??= {})[before] = text;
      }
  const plugins = join(root, 'wp-content/mu-plugins');
  mkdirSync(plugins, { recursive: true });
  writeFileSync(join(plugins, 'markup.json'), JSON.stringify(byPage));
  writeFileSync(join(plugins, 'markup.php'), template);
}

/** A template that prints the new element wherever the old one would be; tags are compared as browsers read them. */
const template = `<?php
ob_start(function ($html) {
  $all = json_decode(file_get_contents(__DIR__ . '/markup.json'), true);
  $own = $all[$_SERVER['REQUEST_URI']] ?? [];
  $plain = function ($tag) {
    $text = preg_replace_callback('/="([^"]*)"|=\\'([^\\']*)\\'/', function ($found) {
      $value = html_entity_decode($found[2] ?? $found[1], ENT_QUOTES | ENT_HTML5);
      return '="' . htmlspecialchars(preg_replace('/\\s+/', ' ', $value), ENT_COMPAT) . '"';
    }, $tag);
    return preg_replace(['/\\s*\\/?>$/', '/\\s+/'], ['>', ' '], $text);
  };
  $fresh = [];
  foreach ($own as $before => $text) $fresh[$plain($before)] = $text;
  return preg_replace_callback('/<img\\b[^>]*>/', function ($found) use ($fresh, $plain) {
    return $fresh[$plain($found[0])] ?? $found[0];
  }, $html);
});
`;
