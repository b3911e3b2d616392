import type Database from 'libsql';
import { toVersion1 } from './migrations/to-1.js';
import { toVersion2 } from './migrations/to-2.js';
import { toVersion3 } from './migrations/to-3.js';
import { toVersion4 } from './migrations/to-4.js';
import { toVersion5 } from './migrations/to-5.js';
import { toVersion6 } from './migrations/to-6.js';
import { toVersion7 } from './migrations/to-7.js';
import { toVersion8 } from './migrations/to-8.js';
import { toVersion9 } from './migrations/to-9.js';
import { toVersion10 } from './migrations/to-10.js';
import { toVersion11 } from './migrations/to-11.js';

type Migration = string | ((database: Database.Database) => void);

/**
 * The migrations from each version to the next; the first makes an empty workspace. A released migration never
 * changes and calls nothing outside its folder, so that it always writes what it wrote then.
 */
export const migrations: readonly Migration[] = [
  toVersion1,
  toVersion2,
  toVersion3,
  toVersion4,
  toVersion5,
  toVersion6,
  toVersion7,
  toVersion8,
  toVersion9,
  toVersion10,
  toVersion11,
];

/** The version of the workspace that this program writes. */
export const schemaVersion = migrations.length;
