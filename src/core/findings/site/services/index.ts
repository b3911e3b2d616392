import { doubledScript } from './doubled-script.js';
import { idleService } from './idle-service.js';
import { thirdPartyService } from './third-party-service.js';

/** Findings on third parties and on what was left behind. */
export const serviceFindings = [thirdPartyService, idleService, doubledScript] as const;
