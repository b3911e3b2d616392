import { withoutSecrets } from '../../core/address/secrets.js';
import { UsageError } from '../../core/base/errors.js';
import type { Screen } from '../../output/terminal/style.js';
import { filePath, yesOrNo } from '../options/checks.js';
import { flagOf, option } from '../options/option.js';
import type { Option } from '../options/option.js';
import { writeResult } from '../write-result.js';
import { numbered } from './numbered.js';

/** A form of output printed on stdout: `text` by default, the others by their switch. */
export interface PrintedForm<View> {
  readonly describe: string;
  /** Loaded only when needed. */
  readonly print: () => Promise<(view: View, screen: Screen) => string>;
}

/** A form of output that is written into the file its option names: one picture, or one for each page. */
export interface DrawnForm<View> {
  readonly describe: string;
  readonly draw: (view: View, file: string) => Promise<readonly (string | Buffer)[]>;
}

export type Form<View> = PrintedForm<View> | DrawnForm<View>;

/** The forms in which a result can be had, by the names of their options. */
export type Forms<View> = Readonly<Record<'text' | 'json', PrintedForm<View>>> &
  Readonly<Record<string, Form<View>>>;

/** A JSON document. */
export function jsonForm<View>(load: () => Promise<(view: View) => unknown>): PrintedForm<View> {
  return {
    describe: 'Print one JSON document and nothing else',
    print: async () => {
      const documentOf = await load();
      const { jsonText } = await import('../../output/json/json-text.js');
      return (view) => jsonText(documentOf(view));
    },
  };
}

type FormOption<Of> =
  Of extends DrawnForm<never>
    ? Option<ReturnType<typeof filePath>>
    : Option<ReturnType<typeof switchCheck>>;

/** The options that choose a form; text is usual, and `--json` is common to all commands. */
export function formOptions<Of extends object>(
  forms: Of,
): { [Name in Exclude<keyof Of, 'text' | 'json'>]: FormOption<Of[Name]> } {
  const entries = Object.entries(forms as Record<string, Form<never>>)
    .filter(([name]) => name !== 'text' && name !== 'json')
    .map(([name, form]) => [name, option(form.describe, checkOf(form))]);
  return Object.fromEntries(entries) as {
    [Name in Exclude<keyof Of, 'text' | 'json'>]: FormOption<Of[Name]>;
  };
}

const switchCheck = () => yesOrNo().default(false);

function checkOf(form: Form<never>) {
  return 'draw' in form ? filePath() : switchCheck();
}

/** The forms that a call requests: one that is printed, and those written into files. */
export interface ChosenForms<View> {
  readonly print: PrintedForm<View>;
  readonly draw: readonly {
    readonly form: DrawnForm<View>;
    readonly name: string;
    readonly file: string;
  }[];
}

/** @throws UsageError when several are to be printed. */
export function chooseForms<View>(
  forms: Forms<View>,
  settings: Readonly<Record<string, unknown>>,
): ChosenForms<View> {
  const all = Object.entries<Form<View>>(forms);
  const printed = all.flatMap(([name, form]) => ('print' in form ? [{ name, form }] : []));
  const asked = printed.filter(({ name }) => settings[name] === true);
  if (asked.length > 1) {
    const names = printed
      .map(({ name }) => `--${flagOf(name)}`)
      .filter((name) => name !== '--text');
    throw new UsageError('only one form of output can be printed', {
      hint: `give one of ${names.slice(0, -1).join(', ')} and ${names.at(-1)}`,
    });
  }
  return {
    print: asked[0]?.form ?? forms.text,
    draw: all.flatMap(([name, form]) => {
      const file = settings[name];
      return 'draw' in form && typeof file === 'string' ? [{ form, name, file }] : [];
    }),
  };
}

/** Writes the pictures requested; those of several pages are numbered. */
export async function writeForms<View>(view: View, { draw }: ChosenForms<View>): Promise<void> {
  for (const { form, name, file } of draw) {
    const pictures = await form.draw(view, file);
    for (const [index, picture] of pictures.entries())
      await writeResult(
        pictures.length === 1 ? file : numbered(file, index + 1),
        typeof picture === 'string' ? withoutSecrets(picture) : picture,
        `--${flagOf(name)}`,
      );
  }
}
