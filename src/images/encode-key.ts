import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Policy } from '../core/policy/policy.js';

/** Increased whenever the same settings give other bytes. */
const revision = 13;

/**
 * The encoders' version: other versions give other bytes. It is read without loading them, which takes longer than
 * all else where nothing is to be encoded.
 */
function encoderVersion(): string {
  const entry = createRequire(import.meta.url).resolve('sharp');
  const manifest = join(dirname(entry), '..', 'package.json');
  const { name, version } = JSON.parse(readFileSync(manifest, 'utf8')) as Record<string, string>;
  return `${name} ${version}, ${revision}`;
}

/** What an encode depends on besides the picture and its size. */
export function encodeKey({ formats, similarity, quality, metadata }: Policy): string {
  const { least, most } = quality;
  const settings = [[...formats].sort(), similarity, least, most, metadata];
  return JSON.stringify([encoderVersion(), ...settings]);
}
