import type { Policy } from '../../core/policy/policy.js';
import type { Size } from '../../core/base/size.js';
import { usualExponent } from '../../core/survey/encoded.js';
import type { Encoded } from '../../core/survey/encoded.js';
import type { ImageFile } from '../../core/survey/image-file.js';
import { encodeFirst } from '../../images/first-encode.js';
import type { FirstEncode } from '../../images/first-encode.js';
import type { Workspace } from '../../store/workspace.js';

/**
 * One encode of each image, made before its file is searched for: what it wastes is known to a few per cent long before all
 * files are. Nothing of it is kept.
 */
export class FirstEncodes {
  readonly #workspace: Workspace;
  readonly #policy: Policy;
  /** By content hash, at the largest need so far. */
  readonly #made = new Map<string, { readonly need: Size; readonly first: FirstEncode | null }>();

  constructor(workspace: Workspace, policy: Policy) {
    this.#workspace = workspace;
    this.#policy = policy;
  }

  /** Encodes a file, unless that was done at this need; what cannot be encoded once is left to the search. */
  async make(file: ImageFile, need: Size): Promise<void> {
    if (this.has(file, need)) return;
    const body = await this.#workspace.bodies.readIfSound(file.contentHash);
    // What cannot be decoded is told by the search.
    const first = body && (await encodeFirst(body, file, need, this.#policy).catch(() => null));
    this.#made.set(file.contentHash, { need, first: first ?? null });
  }

  has({ contentHash }: Pick<ImageFile, 'contentHash'>, need: Size): boolean {
    return this.#made.get(contentHash)?.need.width === need.width;
  }

  /** The drafts that need not be made again. */
  draftsOf({ contentHash }: ImageFile, need: Size | null): FirstEncode['drafts'] {
    const made = this.#made.get(contentHash);
    return (made?.need.width === need?.width && made?.first?.drafts) || [];
  }

  /** The file that will probably be found; `undefined` where nothing is known of it. */
  estimateOf({ contentHash }: Pick<ImageFile, 'contentHash'>, need: Size): Encoded | undefined {
    const made = this.#made.get(contentHash);
    if (!made?.first) return undefined;
    const { nature, format, bytes } = made.first;
    const common = { contentHash, need, nature, format, attempts: [], problem: null };
    const steps = { metadata: 0, exponent: usualExponent, sameFormat: bytes, best: bytes };
    return made.need.width === need.width ? { ...common, steps, resultHash: null } : undefined;
  }

  /** Forgets a file whose search has come to its end. */
  delete(contentHash: string): void {
    this.#made.delete(contentHash);
  }
}
