import { between, pick, seeded } from './random.js';

/** The map of the bay: few flat colours, hard edges. */
export function mapOfTheBay(width: number, height: number): string {
  const random = seeded(77);
  const fields = Array.from({ length: 38 }, () => {
    const x = between(random, 0.02, 0.6) * width;
    const y = between(random, 0.02, 0.9) * height;
    return `<rect x="${x}" y="${y}" width="${between(random, 0.04, 0.13) * width}" height="${between(random, 0.03, 0.1) * height}" rx="10" fill="${pick(random, ['#dfe8b8', '#cfdd9f', '#e9e2b0'])}" transform="rotate(${between(random, -12, 12)} ${x} ${y})"/>`;
  });
  const pins = [
    [0.58, 0.28, '#e4572e'],
    [0.66, 0.5, '#17637a'],
    [0.55, 0.72, '#c3305a'],
    [0.3, 0.42, '#3a2c52'],
  ].map(
    ([x, y, colour]) =>
      `<g transform="translate(${Number(x) * width} ${Number(y) * height}) scale(${width / 900})"><path d="M0 0C-26-34-30-44-30-58A30 30 0 1 1 30-58C30-44 26-34 0 0Z" fill="${colour}"/><circle cy="-58" r="12" fill="#fff"/></g>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#9ccfd8"/><path d="M0 0H${width * 0.7}C${width * 0.5} ${height * 0.2} ${width * 0.8} ${height * 0.36} ${width * 0.68} ${height * 0.55}S${width * 0.5} ${height * 0.8} ${width * 0.64} ${height}H0Z" fill="#f6eed3"/><path d="M0 0H${width * 0.62}C${width * 0.44} ${height * 0.2} ${width * 0.72} ${height * 0.36} ${width * 0.61} ${height * 0.55}S${width * 0.44} ${height * 0.8} ${width * 0.57} ${height}H0Z" fill="#e6efc9"/>${fields.join('')}<path d="M0 ${height * 0.62}C${width * 0.2} ${height * 0.5} ${width * 0.3} ${height * 0.42} ${width * 0.44} ${height * 0.4}S${width * 0.56} ${height * 0.34} ${width * 0.58} ${height * 0.28}" fill="none" stroke="#d98e4a" stroke-width="${width / 90}"/><path d="M${width * 0.3} ${height}C${width * 0.32} ${height * 0.8} ${width * 0.28} ${height * 0.6} ${width * 0.3} ${height * 0.42}" fill="none" stroke="#fff" stroke-width="${width / 110}"/><path d="M${width} ${height * 0.62}C${width * 0.9} ${height * 0.56} ${width * 0.8} ${height * 0.52} ${width * 0.67} ${height * 0.5}" fill="none" stroke="#17637a" stroke-width="${width / 220}" stroke-dasharray="${width / 60} ${width / 90}"/>${pins.join('')}</svg>`;
}

/** The festival's poster: a flat design that was exported at print size. */
export function poster(width: number, height: number): string {
  const rays = Array.from(
    { length: 18 },
    (_, index) =>
      `<path d="M${width / 2} ${height * 0.62} L${width * 2 * Math.cos((index / 18) * Math.PI * 2)} ${height * 2 * Math.sin((index / 18) * Math.PI * 2)} L${width * 2 * Math.cos(((index + 0.5) / 18) * Math.PI * 2)} ${height * 2 * Math.sin(((index + 0.5) / 18) * Math.PI * 2)}Z" fill="#f9d98a" transform="translate(${width * 0.5 - width / 2} 0)"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#f6c94c"/>${rays.join('')}<path d="M0 ${height * 0.7}Q${width * 0.25} ${height * 0.64} ${width * 0.5} ${height * 0.7}T${width} ${height * 0.7}V${height}H0Z" fill="#17637a"/><path d="M0 ${height * 0.78}Q${width * 0.25} ${height * 0.72} ${width * 0.5} ${height * 0.78}T${width} ${height * 0.78}V${height}H0Z" fill="#0f4557"/><path d="M0 ${height * 0.88}Q${width * 0.35} ${height * 0.8} ${width} ${height * 0.9}V${height}H0Z" fill="#f4efe2"/><g transform="translate(${width / 2} ${height * 0.36}) scale(${width / 260}) rotate(14)"><path d="M0-80 60-14 0 80-60-14Z" fill="#e4572e"/><path d="M0-80 60-14 0 0Z M0 0 0 80-60-14Z" fill="#fdf6e3"/><path d="M0-80V80M-60-14H60" stroke="#2a2233" stroke-width="2.5"/><path d="M0 80C30 110-30 130 10 170" stroke="#2a2233" stroke-width="2.5" fill="none"/></g></svg>`;
}

/** A windsock that swings: one frame of the animation, `phase` from 0 to 1. */
export function windsock(side: number, phase: number): string {
  const swing = Math.sin(phase * Math.PI * 2);
  const bands = Array.from({ length: 5 }, (_, index) => {
    const x = 84 + index * 50;
    const y = 110 + swing * index * 9;
    const high = 74 - index * 9;
    return `<path d="M${x} ${y - high / 2} L${x + 52} ${y + swing * 9 - high / 2 + 5} V${y + swing * 9 + high / 2 - 5} L${x} ${y + high / 2}Z" fill="${index % 2 ? '#fdf6e3' : '#e4572e'}"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}" viewBox="0 0 360 360"><rect width="360" height="360" fill="#cfe7ea"/><path d="M78 340V60" stroke="#3a2c52" stroke-width="9" stroke-linecap="round"/>${bands.join('')}<path d="M0 340H360" stroke="#c9a66b" stroke-width="40"/></svg>`;
}

/** An engraved plate: a kite on a coloured ground. */
export function plate(width: number, height: number): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 300 200" preserveAspectRatio="none"><rect width="300" height="200" fill="#e6efe9"/><rect x="8" y="8" width="284" height="184" fill="none" stroke="#17637a" stroke-width="4"/><path d="M150 20 210 90 150 180 90 90Z" fill="#e4572e"/><path d="M150 20 210 90 150 90Z M150 90V180L90 90Z" fill="#f6c94c"/></svg>`;
}

/** A third party's weather badge. */
export function weatherBadge(width: number, height: number): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 400 200"><rect width="400" height="200" rx="18" fill="#20394f"/><circle cx="96" cy="88" r="44" fill="#f6c94c"/><path d="M70 132a34 34 0 0 1 12-66 48 48 0 0 1 90 10 30 30 0 0 1 4 56Z" fill="#e8eef2"/><path d="M228 60h118q24 0 24 -22t-22-20 M228 96h92 M228 132h74q26 0 26 22t-24 20" stroke="#8fd0dd" stroke-width="12" fill="none" stroke-linecap="round"/></svg>`;
}

/** The festival's mark. */
export const logo = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><path d="M34 4 56 26 34 50 14 26Z" fill="#e4572e"/><path d="M34 4 56 26 34 26Z M34 26V50L14 26Z" fill="#f6c94c"/><path d="M34 50c8 6-10 6 0 12" fill="none" stroke="#17637a" stroke-width="3" stroke-linecap="round"/></svg>`;

/** The icons of the information row, by name. */
export const icons: Readonly<Record<string, string>> = {
  wind: 'M6 24h30c8 0 8-12 0-12 M6 34h40c10 0 10 14 0 14 M6 44h22',
  ferry: 'M8 38h48l-8 14H16Z M18 38V26h26v12 M30 26V14',
  tent: 'M6 52 32 12 58 52Z M32 12v40 M24 52l8-14 8 14',
  moon: 'M42 8a26 26 0 1 0 14 36A22 22 0 0 1 42 8Z',
};

/** One icon as a file. */
export function icon(name: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><path d="${icons[name] ?? ''}" fill="none" stroke="#17637a" stroke-width="4" stroke-linecap="round" stroke-linejoin="round"/></svg>`;
}
