import { describe, expect, it } from 'vitest';
import { Workspace } from '../../src/store/workspace.js';
import { plainFile as file } from '../support/image-file.js';
import { freshPlace } from '../support/place.js';

describe('Encodes', () => {
  it('keeps encodes by content, need and policy', () => {
    const workspace = Workspace.open(freshPlace());
    workspace.images.add(file);
    const encoded = {
      contentHash: file.contentHash,
      need: { width: 20, height: 15 },
      format: 'webp' as const,
      steps: { metadata: 0, exponent: 0.7, sameFormat: 200, best: 100 },
      nature: 'photograph' as const,
      attempts: [],
      resultHash: 'c'.repeat(64),
      problem: null,
    };
    workspace.encodes.add(encoded, 'policy');
    expect(workspace.encodes.get(file.contentHash, encoded.need, 'policy')).toEqual(encoded);
    expect(workspace.encodes.get(file.contentHash, encoded.need, 'other')).toBeUndefined();
    expect(
      workspace.encodes.get(file.contentHash, { width: 1, height: 1 }, 'policy'),
    ).toBeUndefined();
    workspace.close();
  });
});
