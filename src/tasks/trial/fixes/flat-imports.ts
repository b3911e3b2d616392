import { keptAddress } from '../../../core/address/address.js';
import { withBody } from '../../../core/trial/recording.js';
import type { RecordedResponse } from '../../../core/trial/recording.js';
import { rebased, styleImports } from '../../../texts/style-imports.js';
import { changeEach, hasBody, resolved } from './fix.js';
import type { Fix } from './fix.js';

/** Style sheets that import one another in a circle are followed so far. */
const maxDepth = 5;

export const flatImports: Fix = {
  name: 'flat-imports',
  title: 'style sheets contain what they import (@import)',
  unit: 'file',
  isOfBytes: true,
  isUsual: () => false,
  apply: async (recording, { read, keep }) => {
    const sheets = new Map(
      recording.responses
        .filter((response) => hasBody(response) && response.request.type === 'style')
        .map((response) => [response.request.url, response]),
    );
    const flat = async (sheet: RecordedResponse, depth: number): Promise<string> => {
      const text = (await read(sheet.bodyHash!)).toString('utf8');
      let result = text;
      const imports = styleImports(text);
      // An import that stays must stand ahead of all rules: what cannot be put in ends the work.
      const inner = imports.map(({ url }) =>
        sheets.get(keptAddress(resolved(url, sheet.request.url))),
      );
      if (depth >= maxDepth || inner.some((one) => !one)) return text;
      for (let at = imports.length - 1; at >= 0; at--) {
        const { from, to, media } = imports[at]!;
        const imported = inner[at]!;
        const own = rebased(await flat(imported, depth + 1), imported.request.url);
        const put = media === '' ? own : `@media ${media} {\n${own}\n}`;
        result = `${result.slice(0, from)}${put}\n${result.slice(to)}`;
      }
      return result;
    };
    const outcome = await changeEach(
      recording,
      (response) => sheets.get(response.request.url) === response,
      async (response) => {
        const text = await flat(response, 0);
        const bytes = await read(response.bodyHash!);
        return text === bytes.toString('utf8')
          ? null
          : withBody(response, await keep(Buffer.from(text)));
      },
    );
    return { ...outcome, notes: [] };
  },
};
