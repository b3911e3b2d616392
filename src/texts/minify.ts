import { smallerVector } from './smaller-vector.js';

/** A text without what only people need; licences stay. */
const byKind: Readonly<
  Record<'html' | 'style' | 'script' | 'data' | 'vector', (text: string) => Promise<string | null>>
> = {
  html: async (text) => {
    const { minify } = (await import('@minify-html/node')).default;
    // Styles and scripts in it are not the document's.
    return minify(Buffer.from(text), {}).toString();
  },
  style: (text) => byEsbuild(text, 'css'),
  script: (text) => byEsbuild(text, 'js'),
  data: (text) => Promise.resolve(/^\s*[[{]/.test(text) ? JSON.stringify(JSON.parse(text)) : null),
  vector: smallerVector,
};

async function byEsbuild(text: string, loader: 'css' | 'js'): Promise<string> {
  // It runs beside this process.
  const { transform } = await import('esbuild');
  const { code } = await transform(text, {
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
