import { drawTheSame } from '../../images/vector.js';
import { minified } from '../../texts/minify.js';

/**
 * A vector image without what nobody sees of it.
 *
 * @returns `null` where nothing smaller draws the same
 */
export async function optimiseVector(body: Buffer): Promise<Buffer | null> {
  const text = await minified(body.toString('utf8'), 'vector');
  const smaller = text === null ? body : Buffer.from(text);
  if (smaller.length >= body.length) return null;
  try {
    return (await drawTheSame(body, smaller)) ? smaller : null;
  } catch {
    // What cannot be drawn stays as it is.
    return null;
  }
}
