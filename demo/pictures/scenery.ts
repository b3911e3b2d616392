import type { Light, LightName } from './light.js';
import { between, pick } from './random.js';
import type { Random } from './random.js';

export function frame(
  width: number,
  height: number,
  light: Light,
  horizon: number,
  parts: readonly string[],
): string {
  const sky = light.sky.map(
    (colour, index) => `<stop offset="${index / 2}" stop-color="${colour}"/>`,
  );
  return svg(
    width,
    height,
    `<linearGradient id="sky" x2="0" y2="1">${sky.join('')}</linearGradient><rect width="100%" height="${horizon + height * 0.02}" fill="url(#sky)"/>${parts.join('')}`,
  );
}

export function svg(width: number, height: number, body: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${body}</svg>`;
}

export function sun(x: number, horizon: number, height: number, light: LightName): string {
  const [colour, y] =
    light === 'night'
      ? ['#dfe6ff', horizon * 0.25]
      : light === 'evening'
        ? ['#ffe0a0', horizon * 0.86]
        : ['#fffbe8', horizon * 0.2];
  return `<radialGradient id="glow"><stop stop-color="${colour}" stop-opacity=".95"/><stop offset=".12" stop-color="${colour}" stop-opacity=".55"/><stop offset="1" stop-color="${colour}" stop-opacity="0"/></radialGradient><circle cx="${x}" cy="${y}" r="${height * 0.42}" fill="url(#glow)"/>`;
}

export function stars(random: Random, width: number, horizon: number): string {
  return Array.from(
    { length: 160 },
    () =>
      `<circle cx="${random() * width}" cy="${random() * horizon * 0.9}" r="${between(random, 0.6, 2)}" fill="#fff" fill-opacity="${between(random, 0.3, 0.9)}"/>`,
  ).join('');
}

export function sea(
  random: Random,
  width: number,
  top: number,
  bottom: number,
  light: Light,
): string {
  const waves = Array.from({ length: 90 }, () => {
    const depth = random();
    const y = top + depth * (bottom - top);
    return `<ellipse cx="${random() * width}" cy="${y}" rx="${between(random, 10, 90) * (0.4 + depth)}" ry="${0.6 + depth * 2.4}" fill="#fff" fill-opacity="${between(random, 0.06, 0.3)}"/>`;
  });
  return `<linearGradient id="sea" x2="0" y2="1"><stop stop-color="${light.sea[0]}"/><stop offset="1" stop-color="${light.sea[1]}"/></linearGradient><rect y="${top}" width="${width}" height="${bottom - top + 40}" fill="url(#sea)"/>${waves.join('')}<path d="M0 ${bottom} q ${width / 4} ${-14} ${width / 2} 2 t ${width / 2} -4 v26 H0Z" fill="#fff" fill-opacity=".5"/>`;
}

export function headland(
  random: Random,
  width: number,
  horizon: number,
  height: number,
  light: LightName,
): string {
  const right = random() > 0.5;
  const x = right ? width : 0;
  const reach = (right ? -1 : 1) * width * between(random, 0.25, 0.45);
  const rise = height * between(random, 0.06, 0.13);
  const colour = light === 'night' ? '#0d1024' : light === 'evening' ? '#4d3656' : '#5f7f74';
  return `<path d="M${x} ${horizon - rise} c ${reach * 0.3} ${-rise * 0.2} ${reach * 0.5} ${rise * 0.6} ${reach} ${rise} H${x}Z" fill="${colour}" fill-opacity=".9"/>`;
}

export function sand(
  random: Random,
  width: number,
  height: number,
  shore: number,
  light: Light,
): string {
  const ripples = Array.from({ length: 120 }, () => {
    const depth = random();
    const y = shore + depth * (height - shore);
    return `<ellipse cx="${random() * width}" cy="${y}" rx="${between(random, 20, 160)}" ry="${1 + depth * 4}" fill="${pick(random, ['#000', '#fff'])}" fill-opacity=".05"/>`;
  });
  return `<linearGradient id="sand" x2="0" y2="1"><stop stop-color="${light.sand[0]}"/><stop offset="1" stop-color="${light.sand[1]}"/></linearGradient><path d="M0 ${shore + 12} q ${width / 4} ${-14} ${width / 2} 2 t ${width / 2} -4 V${height} H0Z" fill="url(#sand)"/>${ripples.join('')}`;
}

export function ridge(
  random: Random,
  width: number,
  height: number,
  top: number,
  near: string,
  far: string,
): string {
  const id = `r${Math.floor(random() * 1e9)}`;
  const lift = between(random, -0.1, 0.1) * height;
  return `<linearGradient id="${id}" x2="0" y2="1"><stop stop-color="${near}"/><stop offset="1" stop-color="${far}"/></linearGradient><path d="M0 ${top + lift} C ${width * 0.3} ${top - lift * 1.4} ${width * 0.55} ${top + lift * 1.6} ${width} ${top - lift} V${height} H0Z" fill="url(#${id})"/>`;
}

export function grass(
  random: Random,
  width: number,
  bottom: number,
  tall: number,
  blades: number,
  light: LightName,
): string {
  const colours =
    light === 'evening' || light === 'night'
      ? ['#3c3a35', '#574a3a', '#2b2d33']
      : ['#7f8a4a', '#a39a5a', '#5c6f3f', '#c2b277'];
  return Array.from({ length: blades }, () => {
    const x = random() * width;
    const y = bottom + between(random, -0.25, 0.4) * tall;
    const bend = between(random, 0.1, 0.6) * tall;
    return `<path d="M${x} ${y} q ${bend * 0.2} ${-tall * 0.6} ${bend} ${-tall * between(random, 0.5, 1)}" fill="none" stroke="${pick(random, colours)}" stroke-opacity=".85" stroke-width="${between(random, 1.2, 3.2)}"/>`;
  }).join('');
}
