import { withBody } from '../../../core/trial/recording.js';
import { minified } from '../../../texts/minify.js';
import { changeEach, hasBody } from './fix.js';
import type { Fix } from './fix.js';

const kinds = { html: 'html', style: 'style', script: 'script' } as const;

export const minify: Fix = {
  name: 'minify',
  title: 'documents, style sheets and scripts are minified',
  unit: 'file',
  isOfBytes: true,
  isUsual: () => false,
  apply: async (recording, { read, keep }) => {
    const kindOf = (type: string) => (kinds as Readonly<Record<string, keyof typeof kinds>>)[type];
    const outcome = await changeEach(
      recording,
      (response) => hasBody(response) && kindOf(response.request.type) !== undefined,
      async (response) => {
        const text = (await read(response.bodyHash!)).toString('utf8');
        const smaller = await minified(text, kindOf(response.request.type)!);
        if (smaller === null || smaller.length >= text.length) return null;
        return withBody(response, await keep(Buffer.from(smaller)));
      },
    );
    return { ...outcome, notes: [] };
  },
};
