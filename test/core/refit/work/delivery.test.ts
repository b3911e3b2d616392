import { describe, expect, it } from 'vitest';
import { deliveryOf } from '../../../../src/core/refit/work/delivery.js';
import { headerList, nginxDelivery } from '../../../../src/output/server/delivery.js';
import { findingsOf } from '../../findings/made-site.js';

const files = (count: number) =>
  Array.from({ length: count }, (_, at) => ({
    ...{ url: `https://a.test/${at}.css`, protocol: 'http/1.1' },
    headers: {},
  }));

describe('the settings of a server that findings ask for', () => {
  it('are none where nothing was found', () => {
    expect(deliveryOf(findingsOf([{ files: [{}] }]))).toBeNull();
  });

  it('are those for what was found, and name what to join in its order', () => {
    const settings = deliveryOf(findingsOf([{ files: files(8) }]))!;
    expect(settings).toMatchObject({
      ...{ compress: false, keep: true, askAgain: false, keepAlive: false, share: true },
      joins: [{ what: 'style sheets of a.test', files: files(8).map(({ url }) => url) }],
    });
    expect(nginxDelivery(settings)).not.toContain('gzip');
    expect(nginxDelivery(settings)).toContain('max-age=604800');
    const list = headerList(settings).split('\n');
    const start = list.indexOf('Join to one file, in this order (style sheets of a.test):');
    expect(list.slice(start + 1, start + 9)).toEqual(files(8).map(({ url }) => url));
  });

  it('leave third parties alone', () => {
    const found = findingsOf([{ files: files(1).map((file) => ({ ...file, thirdParty: true })) }]);
    expect(deliveryOf(found)).toBeNull();
  });
});
