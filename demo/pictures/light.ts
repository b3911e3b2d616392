/** The light of a scene: colours of the sky from the top down, and of what lies below it. */
export interface Light {
  readonly sky: readonly [string, string, string];
  readonly sea: readonly [string, string];
  readonly sand: readonly [string, string];
  readonly clouds: readonly [number, number, number];
}

export const lights = {
  noon: {
    sky: ['#2f7fb8', '#7dbbdc', '#d9ecf0'],
    sea: ['#2f7f93', '#5fb0b5'],
    sand: ['#e7cf9d', '#c9a66b'],
    clouds: [255, 255, 255],
  },
  morning: {
    sky: ['#6fa3c8', '#c9d9dc', '#f7e3c5'],
    sea: ['#5b8f9f', '#a5c4c1'],
    sand: ['#e6d3b1', '#bf9f72'],
    clouds: [255, 247, 235],
  },
  evening: {
    sky: ['#3b3f73', '#c9627a', '#f9b66a'],
    sea: ['#4a3f66', '#d88d70'],
    sand: ['#c08a6a', '#6b4a4a'],
    clouds: [255, 196, 150],
  },
  grey: {
    sky: ['#7d8f9c', '#a9b7bd', '#d3d8d6'],
    sea: ['#6a7f86', '#93a5a6'],
    sand: ['#cbbd9f', '#98886c'],
    clouds: [235, 238, 240],
  },
  night: {
    sky: ['#070b22', '#121a3e', '#2c2b5a'],
    sea: ['#0b1130', '#232a55'],
    sand: ['#2b2740', '#14121f'],
    clouds: [70, 74, 120],
  },
} satisfies Record<string, Light>;

export type LightName = keyof typeof lights;
