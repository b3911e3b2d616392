import { closingServer } from './closing-server.js';
import { failedFile } from './failed-file.js';
import { manyHosts } from './many-hosts.js';
import { mixedSchemes } from './mixed-schemes.js';
import { oldProtocol } from './old-protocol.js';
import { pageRedirect } from './page-redirect.js';
import { redirectedFile } from './redirected-file.js';
import { slowDocument } from './slow-document.js';

/** Findings on servers, and on the way to them. */
export const connectionFindings = [
  failedFile,
  pageRedirect,
  redirectedFile,
  mixedSchemes,
  manyHosts,
  closingServer,
  oldProtocol,
  slowDocument,
] as const;
