/** Characters of the conditions that there is room for in a line. */
const lineLength = 150;

/** The conditions, in as few lines as they need. */
export function conditionLines(conditions: string): string[] {
  const lines: string[] = [];
  for (const part of conditions.split(' · ')) {
    const longer = lines.length > 0 ? `${lines.at(-1)} · ${part}` : part;
    if (lines.length > 0 && longer.length <= lineLength) lines[lines.length - 1] = longer;
    else lines.push(part);
  }
  return lines;
}
