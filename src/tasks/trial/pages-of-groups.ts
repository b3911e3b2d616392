import { textMatcher } from '../../core/address/address-matcher.js';
import { NotFoundError } from '../../core/base/errors.js';
import { namedGroups } from '../../core/survey/page-groups.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { Workspace } from '../../store/workspace.js';

/**
 * Some pages of each page group of a survey: those with the most visits, and then those nearest to a start.
 *
 * @param label the survey; the newest when it is left out
 * @param names names of page groups, with `*` for any characters
 * @param most pages of each group
 * @param own groups that a person named: what they are called now counts
 * @throws NotFoundError when there is no such survey, or no such group in it.
 */
export function pagesOfGroups(
  workspace: Workspace,
  label: string | undefined,
  names: readonly string[],
  most: number,
  own: readonly NamedGroup[],
): string[] {
  const nameOf = namedGroups(own);
  const survey = workspace.surveys.find(label);
  const pages = workspace.pages
    .list(survey.id)
    .filter(({ error }) => error === null)
    .map((page) => ({ ...page, group: nameOf(page.url) ?? page.group }))
    .sort((a, b) => (b.visits ?? 0) - (a.visits ?? 0) || a.depth - b.depth);
  const chosen = names.flatMap((name) => {
    const means = textMatcher(name);
    const groups = new Set(pages.flatMap(({ group }) => (group && means(group) ? [group] : [])));
    if (groups.size === 0)
      throw new NotFoundError(`the survey ${survey.label} has no page group ${name}`, {
        hint: 'zealous-lynx rank --by group lists the groups',
      });
    return [...groups].flatMap((one) => pages.filter(({ group }) => group === one).slice(0, most));
  });
  return [...new Set(chosen.map(({ url }) => url))];
}
