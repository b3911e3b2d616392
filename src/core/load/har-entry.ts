import { keptAddress } from '../address/address.js';
import { redacted } from '../base/headers.js';
import type { Header } from '../base/headers.js';
import { amountOf, listOf, untrustedObject, textOf, wholeOf } from '../base/untrusted.js';
import type { UntrustedObject } from '../base/untrusted.js';
import { phaseNames, requestTypes } from './request.js';
import type { PageRequest, Phases, RequestType, SourceLine } from './request.js';

/** Takes note of something that is wrong with an entry. */
export type Note = (words: string) => void;

/** Milliseconds by which the phases of an entry may disagree with its time. */
const tolerance = 1;

/**
 * One entry of a HAR file as a request.
 *
 * @param start milliseconds since its page began
 * @param thirdParty whether it is another party's, when the file does not say so itself
 */
export function requestOf(
  entry: UntrustedObject,
  start: number,
  thirdParty: (address: string) => boolean,
  note: Note,
): PageRequest {
  const asked = untrustedObject(entry['request']);
  const answer = untrustedObject(entry['response']);
  const content = untrustedObject(answer['content']);
  const url = keptAddress(textOf(asked['url']));
  const phases = phasesOf(entry, note);
  const duration = phaseNames.reduce((sum, name) => sum + phases[name], 0);
  const failure = textOf(entry['_failure']) || textOf(answer['_error']) || null;
  const mediaType = (textOf(content['mimeType']).split(';')[0] ?? '').trim().toLowerCase();
  return {
    url,
    method: textOf(asked['method']) || 'GET',
    type: typeOf(entry, mediaType),
    status: wholeOf(answer['status']) ?? 0,
    statusText: textOf(answer['statusText']),
    mediaType,
    protocol: protocolOf(answer, asked),
    start,
    end: entry['_unfinished'] === true ? null : start + duration,
    phases,
    transferBytes: wireBytesOf(answer, content),
    bodyBytes: wholeOf(content['size']) ?? 0,
    fromCache: entry['_fromCache'] === true || typeof entry['_fromCache'] === 'string',
    priority: textOf(entry['_priority']),
    firstPriority: textOf(entry['_firstPriority']) || textOf(entry['_priority']),
    initiator: textOf(entry['_initiator']) || textOf(untrustedObject(entry['_initiator'])['type']),
    initiatedBy: initiatedBy(entry),
    used: typeof entry['_used'] === 'boolean' ? entry['_used'] : null,
    thirdParty: typeof entry['_thirdParty'] === 'boolean' ? entry['_thirdParty'] : thirdParty(url),
    renderBlocking: entry['_renderBlocking'] === true || entry['_renderBlocking'] === 'blocking',
    requestHeaders: headersOf(asked),
    responseHeaders: headersOf(answer),
    serverAddress: textOf(entry['serverIPAddress']),
    redirectsTo: keptAddress(textOf(answer['redirectURL'])),
    failure,
  };
}

/** The phases of an entry in milliseconds; errors of the file are corrected and noted. */
function phasesOf(entry: UntrustedObject, note: Note): Phases {
  const timings = untrustedObject(entry['timings']);
  const time = amountOf(entry['time']);
  const known = (name: string) => amountOf(timings[name]) ?? 0;
  const tls = known('ssl');
  const phases = {
    blocked: known('blocked'),
    dns: known('dns'),
    // The format counts the time for TLS as part of connecting; not every program does.
    connect: Math.max(0, known('connect') - tls),
    tls,
    send: known('send'),
    wait: known('wait'),
    receive: known('receive'),
  };
  const sum = phaseNames.reduce((total, name) => total + phases[name], 0);
  if (sum === 0) {
    if ((time ?? 0) > tolerance) note('no phases: the whole time is counted as wait');
    return { ...phases, wait: time ?? 0 };
  }
  if (time === null) {
    note('no time: the sum of the phases is used');
    return phases;
  }
  if (time > sum + tolerance) {
    note('time longer than the phases: the rest is counted as blocked');
    return { ...phases, blocked: phases.blocked + time - sum };
  }
  if (time < sum - tolerance) note('time shorter than the phases: the phases are kept');
  return phases;
}

/** The origin of a request: as this tool writes it, or inside the initiator, as others do. */
function initiatedBy(entry: UntrustedObject): SourceLine | null {
  const own = untrustedObject(entry['_initiatedBy']);
  const foreign = untrustedObject(entry['_initiator']);
  const url = keptAddress(textOf(own['url']) || textOf(foreign['url']));
  if (url === '') return null;
  const line = wholeOf(own['line']);
  const fromNothing = wholeOf(foreign['lineNumber']);
  return { url, line: line ?? (fromNothing === null ? null : fromNothing + 1) };
}

const resourceTypes: Readonly<Record<string, RequestType>> = {
  document: 'html',
  stylesheet: 'style',
  css: 'style',
  script: 'script',
  js: 'script',
  image: 'image',
  img: 'image',
  imageset: 'image',
  font: 'font',
};

function typeOf(entry: UntrustedObject, mediaType: string): RequestType {
  const own = textOf(entry['_type']);
  if (requestTypes.some((type) => type === own)) return own as RequestType;
  if (mediaType.startsWith('image/')) return 'image';
  const told = resourceTypes[textOf(entry['_resourceType']).toLowerCase()];
  if (told) return told;
  if (/\bhtml\b/.test(mediaType)) return 'html';
  if (mediaType === 'text/css') return 'style';
  if (/javascript|ecmascript/.test(mediaType)) return 'script';
  return /^font\/|font-|-font/.test(mediaType) ? 'font' : 'other';
}

function protocolOf(answer: UntrustedObject, asked: UntrustedObject): string {
  const told = (textOf(answer['httpVersion']) || textOf(asked['httpVersion'])).toLowerCase();
  return { 'http/2.0': 'h2', 'http/2': 'h2', 'http/3.0': 'h3', 'http/3': 'h3' }[told] ?? told;
}

/** Bytes on the wire, as near to them as the file comes. */
function wireBytesOf(answer: UntrustedObject, content: UntrustedObject): number {
  const told = wholeOf(answer['_transferBytes']) ?? wholeOf(answer['_transferSize']);
  if (told !== null) return Math.round(told);
  const body = wholeOf(answer['bodySize']);
  const headers = wholeOf(answer['headersSize']) ?? 0;
  if (body !== null) return Math.round(body + headers);
  const size = wholeOf(content['size']) ?? 0;
  return Math.round(Math.max(0, size - (wholeOf(content['compression']) ?? 0)) + headers);
}

function headersOf(message: UntrustedObject): Header[] {
  return listOf(message['headers'])
    .map(untrustedObject)
    .map((header) => ({ name: textOf(header['name']), value: textOf(header['value']) }))
    .filter(({ name }) => name !== '')
    .map(redacted);
}
