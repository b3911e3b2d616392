import type { Network } from '../../visitors/network.js';

/** Connections that browsers open to one host over HTTP/1.1. */
export const connectionsPerHost = 6;

/** Milliseconds that some bytes take on a line by themselves. */
export function sendingTime(bytes: number, { down }: Network): number {
  return down === 0 ? 0 : (bytes * 8) / down;
}

/** Round trips in which some files of one host come over HTTP/1.1, beside one another on its connections. */
export function roundsOf(files: number): number {
  return Math.ceil(files / connectionsPerHost);
}
