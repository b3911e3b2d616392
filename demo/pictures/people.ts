import type { LightName } from './light.js';
import { between, pick } from './random.js';
import type { Random } from './random.js';

const skins = ['#8d5a3c', '#c68e6a', '#e3b594', '#5d3a26', '#d9a07c'] as const;
const hairs = ['#2a1d18', '#5b3a21', '#8c8580', '#1b1b22', '#a8642f'] as const;

/** Somebody at a bench, from the waist up; `unit` is a hundredth of the picture's height. */
export function maker(random: Random, x: number, unit: number, hue: number): string {
  const skin = pick(random, skins);
  const hair = pick(random, hairs);
  const parts = [
    `<path d="M-24 62C-26 18-12 13 0 13S26 18 24 62Z" fill="hsl(${hue + 170} 38% 36%)"/>`,
    `<path d="M-13 62V24H13V62Z" fill="hsl(${hue + 30} 45% 58%)"/>`,
    `<rect x="-4.5" y="5" width="9" height="11" rx="4" fill="${skin}"/>`,
    `<ellipse rx="9.5" ry="12" cy="-3" fill="${skin}"/>`,
    `<path d="M-10.5-1C-13-22 13-22 10.5-1C7-10-5-11-10.5-1Z" fill="${hair}"/>`,
    `<ellipse cx="-3.6" cy="-2" rx="1.1" ry="1.3" fill="#231815"/>`,
    `<ellipse cx="3.6" cy="-2" rx="1.1" ry="1.3" fill="#231815"/>`,
    `<path d="M-3.5 4q3.5 3 7 0" fill="none" stroke="#5a2a22" stroke-width=".8" stroke-linecap="round"/>`,
  ];
  return `<g transform="translate(${x} ${40 * unit}) scale(${unit})">${parts.join('')}</g>`;
}

/** People in a row along the ground, some with an arm up to their line. */
export function crowd(
  random: Random,
  width: number,
  ground: number,
  tall: number,
  people: number,
  light: LightName,
): string {
  const dark = light === 'night' || light === 'evening';
  return Array.from({ length: people }, (_, index) => {
    const x = ((index + between(random, -0.4, 0.4)) / people) * width;
    const height = tall * between(random, 0.7, 1.1);
    const y = ground + between(random, -0.1, 0.25) * tall;
    const coat = dark
      ? `hsl(${between(random, 230, 330)} 25% ${between(random, 10, 22)}%)`
      : `hsl(${random() * 360} ${between(random, 35, 65)}% ${between(random, 30, 58)}%)`;
    const legs = dark ? '#14121f' : pick(random, ['#2d3a4a', '#4a3b32', '#3b4a3d', '#27303a']);
    const skin = dark ? '#3b2c35' : pick(random, skins);
    return `<g transform="translate(${x} ${y})"><ellipse rx="${height * 0.2}" ry="${height * 0.04}" fill="#000" fill-opacity=".25"/><path d="M${-height * 0.09} 0 L${-height * 0.07} ${-height * 0.5} H${height * 0.07} L${height * 0.09} 0 H${height * 0.02} L0 ${-height * 0.35} L${-height * 0.02} 0Z" fill="${legs}"/><path d="M${-height * 0.12} ${-height * 0.42} Q${-height * 0.14} ${-height * 0.8} 0 ${-height * 0.82} T${height * 0.12} ${-height * 0.42}Z" fill="${coat}"/><path d="M${height * 0.06} ${-height * 0.72} l${height * 0.16} ${-height * 0.2}" stroke="${coat}" stroke-width="${height * 0.06}" stroke-linecap="round"/><circle cy="${-height * 0.91}" r="${height * 0.075}" fill="${skin}"/></g>`;
  }).join('');
}
