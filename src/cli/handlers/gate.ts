import { SettingError } from '../../core/base/errors.js';
import { jsonText } from '../../output/json/json-text.js';
import type { Handler } from '../command.js';
import type { gateCommand } from '../commands/gate.js';
import { chooseForms } from '../forms/form.js';
import type { Forms } from '../forms/form.js';
import { gateForms } from '../forms/gate.js';
import { defaultConfigFile } from '../options/config-file.js';

export const handler: Handler<typeof gateCommand> = async (
  settings,
  { policy, groups, budgets },
  { task, show },
) => {
  chooseForms(gateForms, settings);
  const config = settings.config ?? defaultConfigFile;
  const { suggest, survey, session, site, field, top } = settings;
  if (!suggest && budgets.length === 0)
    throw new SettingError(`${config} has no budgets`, {
      hint: 'zealous-lynx gate --suggest prints some that hold today',
    });
  const { Workspace } = await import('../../store/workspace.js');
  const workspace = Workspace.openExisting(settings.workspace);
  const options = { ...task, policy, groups, budgets, survey, session, site, field };
  try {
    if (suggest) {
      const { suggestGate } = await import('../../tasks/gate/suggest-gate.js');
      const suggested = await suggestGate(workspace, options);
      await show(await suggestionForms(), suggested, settings);
      return 0;
    }
    const { gate } = await import('../../tasks/gate/gate.js');
    const result = await gate(workspace, options);
    await show(gateForms, { ...result, top, config }, settings);
    if (result.judgements.some(({ verdict }) => verdict === 'broken')) return 1;
    return result.unmatched.length > 0 ? 2 : 0;
  } finally {
    workspace.close();
  }
};

/** Budgets as they are suggested. */
interface Suggestion {
  readonly budgets: readonly object[];
}

async function suggestionForms(): Promise<Forms<Suggestion>> {
  const { yamlText } = await import('../options/yaml.js');
  return {
    text: {
      describe: 'For the config file',
      print: () => Promise.resolve(yamlText),
    },
    json: {
      describe: 'As JSON',
      print: () =>
        Promise.resolve(({ budgets }) =>
          jsonText({ format: 'zealous-lynx.suggested-budgets/1', budgets }),
        ),
    },
  };
}
