import { loadFinding } from './load-case.js';

/** Receiving it for longer than this is felt, in milliseconds. */
const longReceive = 300;

/** An image that takes long to receive because of its bytes, and the time it would take at its need. */
export const heavyImage = loadFinding({
  id: 'heavy-image',
  title: 'images that take long to receive',
  doer: 'content',
  fix: 'Send the image at its need: refit makes the files.',
  isWork: false,
  docs: {
    meaning: 'An image takes long to receive.',
    why: 'It holds the line while others wait.',
    computed: 'By the phases of the request.',
    ignore: 'Where it is the picture that people came for and at its need.',
  },
  check: ({ requests, neededBytes, usable }) =>
    requests
      .filter(({ type, phases }) => type === 'image' && phases.receive >= longReceive)
      .map(({ url, phases, transferBytes: bytes, start }) => {
        const known = neededBytes(url);
        const needed = known === undefined || known >= bytes ? null : known;
        const saved = needed === null ? null : phases.receive * (1 - needed / bytes);
        return {
          data: { bytes, receive: phases.receive, neededBytes: needed, saved },
          url,
          cost: saved,
          late: usable !== null && start >= usable,
        };
      }),
  describe: ({ bytes, receive, neededBytes, saved }, format) => {
    const instead =
      neededBytes === null || saved === null
        ? ''
        : `; at its need it would have ${format.bytes(neededBytes)} and save ${format.time(saved)}`;
    return `its ${format.bytes(bytes)} take ${format.time(receive)} to receive${instead}`;
  },
});
