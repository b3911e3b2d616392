import { SettingError } from '../core/base/errors.js';
import { viewsOfAudience } from '../core/visitors/audience.js';
import { chooseViews } from '../core/visitors/view.js';
import type { View } from '../core/visitors/view.js';
import { visitorOf } from './options/access-options.js';
import type { FileSettings } from './options/config-file.js';
import type { SettingsOf } from './options/option.js';
import { hostsOf, memoryOf } from './options/shared.js';
import { defaultPages, queryRuleOf } from './options/survey.js';
import type { surveyOptions } from './options/survey.js';

/** The settings of a survey as a call has them; a watch has those of its surveys among its own. */
type CrawlSettings = Omit<
  SettingsOf<typeof surveyOptions>,
  'list' | 'resume' | 'handOver' | 'survey' | 'changedSince' | 'label' | 'top' | 'encode'
>;

/** How pages are visited and what is kept of them, as the task has it. */
export function surveySettings(
  settings: CrawlSettings & { readonly encode?: boolean | undefined },
  file: FileSettings,
) {
  return {
    policy: file.policy,
    groups: file.groups,
    tabs: settings.tabs,
    ...hostsOf(settings),
    ...memoryOf(settings),
    ignoreRobots: settings.ignoreRobots,
    ...visitorOf(settings, file.access),
    pace: settings.pace,
    retries: settings.retries,
    limits: { load: settings.timeout * 1000, images: 8_000 },
    noBodies: !settings.bodies,
    noPictures: !settings.pictures,
    noEncodes: settings.encode === false,
  };
}

/** Which pages are visited. */
export function scopeOf(
  settings: CrawlSettings & { readonly start: readonly string[] },
  /** How many pages a list names. */
  listed = 0,
) {
  const { start, perGroup, include, exclude, within, ignoreCanonical } = settings;
  return {
    pages: settings.pages ?? Math.max(defaultPages, listed),
    depth: settings.depth ?? (start.length > 0 ? undefined : 0),
    perGroup,
    include,
    exclude,
    within,
    query: queryRuleOf(settings.query),
    ignoreCanonical,
  };
}

/** The views of the audience or of the config file, reduced to those requested. */
export async function viewsFor(
  { audience, viewsMax, view }: CrawlSettings,
  file: FileSettings,
): Promise<readonly View[]> {
  const { readAudience } = await import('../crawl/audience-file.js');
  const views =
    audience === undefined ? file.views : viewsOfAudience(readAudience(audience), viewsMax);
  if (view.length === 0) return views;
  const unknown = view.find((name) => !views.some((one) => one.name === name));
  if (unknown === undefined) return chooseViews(views, view);
  const names = views.map(({ name }) => name).join(', ');
  throw new SettingError(`--view: expected one of ${names}, found ${JSON.stringify(unknown)}`);
}
