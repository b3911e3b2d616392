/** Longer texts are left as they are: parsing them would hold up everything else. */
const maxLength = 1_000_000;
/** The most characters of a text that is gone over several times. */
const severalPasses = 100_000;

/** A single file, which loads in a third of the time that the same in many takes. */
export const loadVectorTool = () => import('svgo/browser');

/**
 * A drawing without its invisible parts: leftovers of its editor, spare digits, spare elements. Names that can
 * be linked to (`drawing.svg#part`) stay.
 *
 * @returns `null` for what is too long
 * @throws for what is no drawing
 */
export async function smallerVector(text: string): Promise<string | null> {
  if (text.length > maxLength) return null;
  const { optimize } = await loadVectorTool();
  const { data } = optimize(text, {
    multipass: text.length <= severalPasses,
    plugins: [
      {
        name: 'preset-default',
        params: { overrides: { cleanupIds: false, removeHiddenElems: false } },
      },
    ],
  });
  return data;
}
