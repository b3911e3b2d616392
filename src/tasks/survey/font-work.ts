import { charactersOf } from '../../core/survey/font-characters.js';
import type { Workspace } from '../../store/workspace.js';
import type { TextThread } from '../../texts/text-thread.js';

/** Finds out what the fonts of a survey would weigh as WOFF2, and with only the characters that its pages draw. */
export async function examineFonts(
  { pages, texts, bodies }: Pick<Workspace, 'pages' | 'texts' | 'bodies'>,
  surveyId: number,
  thread: TextThread,
  signal: AbortSignal | undefined,
): Promise<void> {
  const resources = pages.resources(surveyId, texts);
  const used = charactersOf(resources);
  for (const [contentHash, facts] of resources.texts) {
    const { font } = facts;
    if (!font?.format || !bodies.has(contentHash) || signal?.aborted) continue;
    const characters = used.get(contentHash) ?? '';
    const knowsSubset = characters === '' || characters in font.subsets;
    if (font.woff2 !== null && knowsSubset) continue;
    const body = await bodies.readIfSound(contentHash);
    if (!body) continue;
    const woff2 = font.woff2 ?? (font.format === 'WOFF2' ? body.length : await thread.woff2(body));
    const subset = knowsSubset ? null : await thread.subset(body, characters);
    const subsets = subset === null ? font.subsets : { ...font.subsets, [characters]: subset };
    texts.add({ ...facts, font: { ...font, woff2, subsets } });
  }
}
