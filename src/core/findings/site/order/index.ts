import { blockingScript } from './blocking-script.js';
import { documentWrite } from './document-write.js';
import { importChain } from './import-chain.js';
import { lateStyle } from './late-style.js';
import { manyFiles } from './many-files.js';

/** Findings on how many files a page is sent, and in which order. */
export const orderFindings = [
  blockingScript,
  importChain,
  manyFiles,
  lateStyle,
  documentWrite,
] as const;
