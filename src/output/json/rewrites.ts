import type { MadeVariant, RefitOrder } from '../../core/refit-plan.js';

/** Which paths of a refit take the place of which addresses, as the document `zealous-lynx.rewrites/1`. */
export function rewritesDocument(orders: readonly RefitOrder[], made: readonly MadeVariant[]) {
  return {
    format: 'zealous-lynx.rewrites/1',
    rewrites: orders.flatMap(({ file }) => {
      const own = made.filter(({ contentHash }) => contentHash === file.contentHash);
      const widths = [
        ...own.map(({ path, size, format, bytes }) => ({ path, ...size, format, bytes })),
        { path: file.path, ...file.to },
      ]
        .map(({ path, width, height, format, bytes }) => ({
          ...{ path, mediaType: `image/${format}`, width, height, bytes },
        }))
        .sort((a, b) => a.width - b.width || (a.path < b.path ? -1 : 1));
      return file.originals.map((from) => ({ from, to: file.path, files: widths }));
    }),
  };
}
