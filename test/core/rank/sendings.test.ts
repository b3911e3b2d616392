import { describe, expect, it } from 'vitest';
import { sendingsOf } from '../../../src/core/rank/sendings.js';
import type { Delivery } from '../../../src/core/waste/ledger.js';
import { noWaste } from '../../../src/core/waste/waste.js';

/** A file of 100 bytes in a visit that needs it in some width. */
function delivery(visit: number, width: number, neededBytes: number): Delivery {
  const waste = { sentBytes: 100, neededBytes, wasteBytes: 100 - neededBytes, causes: noWaste() };
  const need = width === 0 ? null : { width, height: width };
  const verdict = { factor: 1, need, waste, sentBytes: 100, thirdParty: false };
  return { file: 0, visit, deciding: 0, placed: 0, verdict, weight: 1 };
}

const viewOf = (visit: number) => (visit % 2 === 0 ? 'phone' : 'laptop');

describe('sendingsOf', () => {
  it('tells each need by itself, the largest first, with the views and pages that have it', () => {
    const all = [
      delivery(0, 700, 40),
      delivery(1, 300, 10),
      delivery(2, 700, 40),
      delivery(3, 700, 40),
      delivery(4, 0, 0),
    ];
    const told = sendingsOf(all, viewOf).map(({ need, views, waste: { wasteBytes } }) => [
      need?.width ?? null,
      wasteBytes,
      views.map(({ name, pages }) => `${name} ${pages}`).join(', '),
    ]);
    expect(told).toEqual([
      [700, 60, 'phone 2, laptop 1'],
      [300, 90, 'laptop 1'],
      [null, 100, 'phone 1'],
    ]);
  });

  it('leaves out what cannot be judged', () => {
    const { verdict, ...other } = delivery(0, 700, 40);
    expect(sendingsOf([{ ...other, verdict: { ...verdict, waste: null } }], viewOf)).toEqual([]);
  });
});
