import type { Policy } from '../../core/policy/policy.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { Workspace } from '../../store/workspace.js';
import { basisOf } from './basis.js';
import { packed } from './packed.js';
import type { SumFrame } from './packed.js';
import { sumPart } from './sum-part.js';
import { SurveyParts } from './survey-parts.js';

/** Sums up parts of a survey for the program that leads it, with what that program found out about the whole. */
export class PartSummer {
  readonly #sum: (part: number) => void;
  readonly closing: string;

  private constructor(closing: string, sum: (part: number) => void) {
    this.closing = closing;
    this.#sum = sum;
  }

  /**
   * @param closing tells one attempt to close the survey from another
   * @returns `undefined` where that attempt is over
   */
  static open(
    workspace: Workspace,
    survey: number,
    closing: string,
    settings: { readonly policy: Policy; readonly groups?: readonly NamedGroup[] | undefined },
  ): PartSummer | undefined {
    const { policy, groups } = settings;
    const basis = basisOf(policy, groups);
    const kept = workspace.sums.get(survey, basis, 'frame');
    const frame: SumFrame | undefined = kept && packed.frame.read(kept);
    if (frame?.closing !== closing) return undefined;
    const parts = new SurveyParts(workspace, workspace.surveys.get(survey), groups);
    return new PartSummer(closing, (part) => sumPart(workspace, parts, part, policy, basis, frame));
  }

  /** Sums up a part, and keeps what came of it. */
  sum(part: number): void {
    this.#sum(part);
  }
}
