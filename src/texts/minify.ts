import { createRequire } from 'node:module';
import type * as Esbuild from 'esbuild';

const require = createRequire(import.meta.url);

/** A text without what only people need; licences stay. */
const byKind: Readonly<
  Record<'html' | 'style' | 'script' | 'data', (text: string) => Promise<string | null>>
> = {
  html: async (text) => {
    const { minify } = await loadHtmlTool();
    // Styles and scripts in it are not the document's.
    return minify(Buffer.from(text), {}).toString();
  },
  style: (text) => byEsbuild(text, 'css'),
  script: (text) => byEsbuild(text, 'js'),
  data: (text) => Promise.resolve(/^\s*[[{]/.test(text) ? JSON.stringify(JSON.parse(text)) : null),
};

const loadHtmlTool = async () => (await import('@minify-html/node')).default;

// Imported, it would be read once more for the names that it exports, which takes longer than to load it.
const loadEsbuild = () => require('esbuild') as typeof Esbuild;

/** Loads all minifiers, so that the first text need not wait for them. */
export async function loadMinifiers(): Promise<void> {
  // What esbuild is asked, it asks a process of its own, which the first question starts.
  await Promise.all([loadEsbuild().transform(''), loadHtmlTool()]);
}

async function byEsbuild(text: string, loader: 'css' | 'js'): Promise<string> {
  const { code } = await loadEsbuild().transform(text, {
    loader,
    ...{ minify: true, legalComments: 'inline', logLevel: 'silent', charset: 'utf8' },
  });
  return code;
}

/**
 * What a minifier makes of a text.
 *
 * @returns `null` for what no minifier is there for, and for what it cannot read
 */
export async function minified(text: string, kind: keyof typeof byKind): Promise<string | null> {
  try {
    return await byKind[kind](text);
  } catch {
    return null;
  }
}
