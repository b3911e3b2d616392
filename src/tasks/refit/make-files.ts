import pLimit from 'p-limit';
import { noSteps } from '../../core/survey/failed-encode.js';
import type { EncodedFormat, Nature, Policy } from '../../core/policy/policy.js';
import { gainProblem } from '../../core/refit/plan/refit-plan.js';
import type { NotMade } from '../../core/refit/refit-manifest.js';
import type { KeptFile, MadeJob, MadeVariant, RefitJob } from '../../core/refit/refit-job.js';
import type { Size } from '../../core/base/size.js';
import { picturesAtOnce } from '../../images/at-once.js';
import { encodeKey } from '../../images/encode-key.js';
import { contentHashOf } from '../../images/hash.js';
import { attemptOf } from '../../images/attempt.js';
import type { VariantMade, VariantWish } from '../../images/variants.js';
import type { Workspace } from '../../store/workspace.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

export interface MadeFiles<Job extends RefitJob> {
  readonly jobs: readonly (Omit<Job, 'variants'> & MadeJob)[];
  readonly notMade: readonly NotMade[];
  /** Images of which nothing that was made is a gain. */
  readonly kept: readonly KeptFile[];
}

/** The bytes of an original. */
export type ReadBody = (contentHash: string) => Promise<Buffer>;

/**
 * Makes all that is planned of images, each once: what the workspace holds from an earlier refit is not made again. A
 * variant that is not smaller than the original is left out.
 */
export async function makeFiles<Job extends RefitJob>(
  workspace: Workspace,
  jobs: readonly Job[],
  policy: Policy,
  read: ReadBody,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<MadeFiles<Job>> {
  const limit = pLimit(picturesAtOnce);
  const total = jobs.length;
  let done = 0;
  const made = await Promise.all(
    jobs.map((job) =>
      limit(async () => {
        if (signal?.aborted) return [];
        onProgress({ stage: 'images', done, total, doing: job.file.path });
        const result = await makeBest(workspace, job, policy, read);
        onProgress({ stage: 'images', done: ++done, total, doing: job.file.path });
        return [result];
      }),
    ),
  );
  const notMade: NotMade[] = [];
  const kept: KeptFile[] = [];
  const gains = made.flat().filter(({ file, isOpen, master }) => {
    const reason =
      isOpen || master ? gainProblem(file.savedBytes, file.from.bytes, policy.worthwhile) : null;
    if (reason !== null) kept.push(...file.originals.map((url) => ({ url, reason })));
    return reason === null;
  });
  const whole = gains.map((job) => ({
    ...job,
    variants: job.variants.filter((variant) => {
      if (variant.bytes < job.file.from.bytes) return true;
      const reason = `as ${variant.format} it would not be smaller than the original`;
      notMade.push({ path: variant.path, reason });
      return false;
    }),
  }));
  return { jobs: whole, notMade, kept };
}

/** The file that an encode made: its hash and its bytes. */
type Result = Pick<MadeVariant, 'resultHash' | 'bytes'>;

/** Makes everything planned for one image from its master; where that is no gain, from itself. */
async function makeBest<Job extends RefitJob>(
  workspace: Workspace,
  job: Job,
  policy: Policy,
  read: ReadBody,
): Promise<Omit<Job, 'variants'> & MadeJob> {
  const made = await makeFilesOf(workspace, job, policy, read).catch((error: unknown) => {
    if (job.master) return null;
    throw error;
  });
  const { savedBytes, from } = made?.file ?? job.file;
  if (made && !(job.master && gainProblem(savedBytes, from.bytes, policy.worthwhile) !== null))
    return made;
  return makeFilesOf(workspace, { ...job, master: null }, policy, read);
}

/** Makes everything planned for one image. */
export async function makeFilesOf<Job extends RefitJob>(
  workspace: Workspace,
  job: Job,
  policy: Policy,
  read: ReadBody,
): Promise<Omit<Job, 'variants'> & MadeJob> {
  const { file, variants, credit, master } = job;
  const maker = new Maker(workspace, job, policy, read);
  const { width, height, format } = file.to;
  let main = file;
  if ((credit || master || job.isOpen) && format !== 'svg' && width !== null && height !== null) {
    // Another file than the one that the survey made: in another size, or with what somebody has filled in.
    const { resultHash, bytes } = await maker.make({ width, height }, format);
    main = {
      ...{ ...file, resultHash, savedBytes: file.from.bytes - bytes },
      pixelsFrom: master?.url ?? null,
      to: { ...file.to, bytes },
    };
  }
  const made: MadeVariant[] = [];
  for (const variant of variants)
    made.push({ ...variant, ...(await maker.make(variant.size, variant.format)) });
  return { ...job, file: main, variants: made };
}

/** Makes the files of one image; its bytes are read and decoded only when one of them is missing. */
class Maker {
  readonly #workspace: Workspace;
  readonly #job: RefitJob;
  readonly #policy: Policy;
  readonly #read: ReadBody;
  /** A quality that was enough in one format is nearly enough in another, and likewise at smaller sizes. */
  readonly #qualities = new Map<EncodedFormat, number | null>();
  #open: ((wish: VariantWish) => Promise<VariantMade>) | undefined;

  constructor(workspace: Workspace, job: RefitJob, policy: Policy, read: ReadBody) {
    this.#workspace = workspace;
    this.#job = job;
    this.#policy = policy;
    this.#read = read;
  }

  async make(size: Size, format: EncodedFormat): Promise<Result> {
    const { encodes, bodies } = this.#workspace;
    const contentHash = this.#source;
    const kept = encodes.get(contentHash, size, this.#key(format));
    if (kept?.resultHash && bodies.has(kept.resultHash))
      return { resultHash: kept.resultHash, bytes: kept.steps.best };
    const { isLossless } = await import('../../images/encode.js');
    const known = this.#qualities.get(format);
    const first = known === undefined ? this.#job.quality : known;
    const quality = isLossless(format) ? null : (first ?? this.#firstQuality(format));
    this.#open ??= await this.#opened();
    const { made, attempts } = await this.#open({ size, format, quality });
    const { body } = made;
    if (known === undefined) this.#qualities.set(format, made.quality);
    const resultHash = contentHashOf(body);
    await bodies.keep(resultHash, body);
    encodes.add(
      {
        ...{ contentHash, need: size, nature: this.#job.nature, format, resultHash },
        ...{ attempts: attempts.map(attemptOf), problem: null },
        steps: { ...noSteps, sameFormat: body.length, best: body.length },
      },
      this.#key(format),
    );
    return { resultHash, bytes: body.length };
  }

  /** Content hash of the file that its pixels come from. */
  get #source(): string {
    return this.#job.master?.contentHash ?? this.#job.file.contentHash;
  }

  /** A lossless picture stays lossless in formats that can be; the others use their best quality. */
  #firstQuality(format: EncodedFormat): number | null {
    return format === 'jpeg' ? this.#policy.quality.most : null;
  }

  async #opened() {
    // The encoders take a while to load.
    const { openVariants } = await import('../../images/variants.js');
    const { file, frames, nature, variants, credit } = this.#job;
    const sizes = [file.to, ...variants.map(({ size }) => size)];
    const size = sizes.reduce<Size>(
      (most, { width, height }) =>
        width !== null && height !== null && width > most.width ? { width, height } : most,
      { width: 0, height: 0 },
    );
    const body = await this.#read(this.#source);
    return openVariants({ body, frames, nature: nature as Nature, size, credit }, this.#policy);
  }

  /** Tells these files from the encodes that chose among several formats, and from those without credits. */
  #key(format: EncodedFormat): string {
    const { credit } = this.#job;
    const filled = credit ? ` with ${JSON.stringify(credit)}` : '';
    return `${format} alone${filled}, ${encodeKey(this.#policy)}`;
  }
}
