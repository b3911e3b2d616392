import type { RequestType } from '../../core/load/request.js';

const types: Readonly<Record<string, RequestType>> = {
  document: 'html',
  stylesheet: 'style',
  script: 'script',
  image: 'image',
  font: 'font',
};

/** The content type that a request's weight is counted under. */
export function typeNamed(resourceType: string, mediaType: string): RequestType {
  if (mediaType.startsWith('image/')) return 'image';
  return types[resourceType.toLowerCase()] ?? 'other';
}
