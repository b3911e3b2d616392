import { freeName } from '../base/free-name.js';
import type { Size } from '../base/size.js';
import type { View } from './view.js';

/** A kind of screen that visitors have, from an analytics export; sizes in CSS pixels. */
export interface Device extends Size {
  readonly density: number;
  readonly visits: number;
  /** `null` where the export does not say. */
  readonly touch: boolean | null;
}

/** Screens that differ by less than this, as `distance` counts it, are one. */
const near = 0.06;

/** More kinds than this are first joined with what is nearest among the most frequent ones. */
const maxKinds = 200;

interface Cluster {
  /** The most frequent of its screens: views are screens that exist. */
  readonly device: Device & { readonly touch: boolean };
  readonly most: number;
  readonly visits: number;
}

/**
 * The views that stand for an audience: screens that are nearly equal are joined, and then the two whose
 * joining costs the least, until no more are left than are wanted. The cost of joining is that of Ward's
 * method (1963): the squared distance, times the product of the visits over their sum.
 *
 * @param max how many views at the most
 * @returns views with shares that add up to 1, the most frequent first; none when there are no visits
 */
export function viewsOfAudience(devices: readonly Device[], max: number): View[] {
  const clusters = joined(startingClusters(devices), max);
  const total = clusters.reduce((sum, { visits }) => sum + visits, 0);
  const names = new Set<string>();
  const nameAnew = (name: string) => {
    const free = freeName(name, (one) => names.has(one));
    names.add(free);
    return free;
  };
  return clusters
    .sort((a, b) => b.visits - a.visits)
    .map(({ device: { width, height, density, touch }, visits }) => ({
      name: nameAnew(nameOf(width, touch)),
      width,
      height,
      density,
      touch,
      share: visits / total,
    }));
}

function startingClusters(devices: readonly Device[]): Cluster[] {
  const clusters = devices
    .filter(({ visits }) => visits > 0)
    .map((device) => ({
      // Screens with many pixels to a CSS pixel that are not wide are held in the hand.
      device: { ...device, touch: device.touch ?? (device.density > 1.25 && device.width <= 1100) },
      most: device.visits,
      visits: device.visits,
    }))
    .sort((a, b) => b.visits - a.visits);
  const kept: Cluster[] = clusters.slice(0, maxKinds);
  for (const rare of clusters.slice(maxKinds)) {
    const place = leastBy(kept, (one) => distance(one, rare));
    kept[place] = join(kept[place]!, rare);
  }
  return kept;
}

function joined(start: readonly Cluster[], max: number): Cluster[] {
  const clusters = [...start];
  for (;;) {
    let best = { cost: Infinity, one: -1, other: -1 };
    for (let one = 0; one < clusters.length; one++)
      for (let other = one + 1; other < clusters.length; other++) {
        const cost = costOf(clusters[one]!, clusters[other]!);
        if (cost < best.cost) best = { cost, one, other };
      }
    const few = clusters.length <= max;
    if (best.one < 0 || (few && best.cost !== 0)) return clusters;
    clusters[best.one] = join(clusters[best.one]!, clusters[best.other]!);
    clusters.splice(best.other, 1);
  }
}

/** Nothing for screens that are nearly equal. */
function costOf(one: Cluster, other: Cluster): number {
  const apart = distance(one, other);
  if (apart < near) return 0;
  return (apart ** 2 * one.visits * other.visits) / (one.visits + other.visits);
}

/**
 * How far two screens are apart. The width matters most: slots follow it. A factor of e in width is 1;
 * heights count a quarter, densities half, and touch keeps phones and small windows apart.
 */
function distance({ device: a }: Cluster, { device: b }: Cluster): number {
  const apart = (x: number, y: number) => Math.abs(Math.log(x / y));
  return (
    apart(a.width, b.width) +
    apart(a.height, b.height) / 4 +
    apart(a.density, b.density) / 2 +
    (a.touch === b.touch ? 0 : 0.3)
  );
}

function join(one: Cluster, other: Cluster): Cluster {
  const { device, most } = one.most >= other.most ? one : other;
  return { device, most, visits: one.visits + other.visits };
}

function leastBy<Item>(items: readonly Item[], valueOf: (item: Item) => number): number {
  const values = items.map(valueOf);
  return values.indexOf(Math.min(...values));
}

function nameOf(width: number, touch: boolean): string {
  if (touch) return width < 600 ? `phone-${width}` : `tablet-${width}`;
  return width < 1600 ? `laptop-${width}` : `desktop-${width}`;
}
