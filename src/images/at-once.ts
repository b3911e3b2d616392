import { availableParallelism } from 'node:os';

/**
 * So many pictures are worked on at the same time: more than there are cores, because the encoders rest while the main
 * thread compares what they made.
 */
export const picturesAtOnce = availableParallelism() + 2;
