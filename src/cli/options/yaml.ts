import { parse, stringify, YAMLParseError } from 'yaml';

// A room of its own for the parser, which only those calls load that have a file to read.
export const parseYaml: (text: string) => unknown = parse;

/** A value as YAML, as a person would write it into the config file. */
export function yamlText(value: unknown): string {
  return stringify(value, { lineWidth: 0 }).trimEnd();
}

/** The position of a YAML error; `undefined` for other errors. */
export function placeOf(
  error: unknown,
): { readonly line: number; readonly col: number } | undefined {
  return error instanceof YAMLParseError ? error.linePos?.[0] : undefined;
}
