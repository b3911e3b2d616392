import { embeddedData } from './embedded-data.js';
import { largeDocument } from './large-document.js';
import { uncompressedText } from './uncompressed-text.js';
import { unminifiedText } from './unminified-text.js';

/** Findings on texts as they come over the wire. */
export const textFindings = [
  uncompressedText,
  unminifiedText,
  embeddedData,
  largeDocument,
] as const;
