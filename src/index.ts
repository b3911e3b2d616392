/**
 * The library under the program: the tasks, each of which does what the command of its name does and
 * prints nothing, and the computations they rest on.
 *
 * A task is given a `Workspace`, reports progress as events, and can be stopped by an `AbortSignal`.
 * Everything that goes wrong on purpose is a `LynxError` with a stable `code`.
 */
export * from './core/errors.js';
export type { Size } from './core/size.js';
export type { View } from './core/view.js';
export { chooseViews, defaultViews } from './core/view.js';
export type { Device } from './core/audience.js';
export { viewsOfAudience } from './core/audience.js';
export type { Access } from './core/access.js';
export type { NamedGroup } from './core/page-groups.js';
export { groupPages } from './core/page-groups.js';
export { sizesText } from './core/sizes-text.js';
export type { Policy, EncodedFormat } from './core/policy.js';
export { defaultPolicy } from './core/policy.js';
export type { Network } from './core/network.js';
export { builtInNetworks, unshaped } from './core/network.js';
export type { Conditions } from './core/conditions.js';
export { differingConditions } from './core/conditions.js';
export type { ImageFile, ImageResponse } from './core/image-file.js';
export type { Placement, PlacementKind } from './core/placement.js';
export type { ObjectFit } from './core/rendered-size.js';
export { renderedSize } from './core/rendered-size.js';
export { needOf } from './core/need.js';
export type { Cause, EncodedSteps, Waste, WasteByCause, WasteSteps } from './core/waste.js';
export { splitWaste, stepsAt } from './core/waste.js';
export { similarity } from './core/similarity.js';
export { searchQuality } from './core/quality-search.js';
export { bytesWith, planWidths } from './core/width-plan.js';
export type { Demand, WidthPlan } from './core/width-plan.js';
export type { Portion } from './core/portion.js';
export type { RankedImage, RankedPlacement } from './core/ranked-image.js';
export type { RankTotals, Ranking } from './core/ranking.js';
export { rankImages } from './core/ranking.js';
export { demandsOf, familyOf } from './core/family.js';
export { groupRows, groupings } from './core/groupings.js';
export type { GroupRow, Grouping } from './core/groupings.js';
export { deliveriesOf } from './core/filter.js';
export { rowsOf } from './core/rank-view.js';
export type { Encoded, SurveyEntry, SurveyFacts, SurveyHead, SurveyedPage } from './core/survey.js';
export type { Markers, MarkerName } from './core/markers.js';
export type { PageRequest, Phases } from './core/request.js';
export type { Run, Session, SessionSummary } from './core/session.js';
export { medianRun, summariseSession } from './core/session.js';
export type { Change, SessionComparison } from './core/comparison.js';
export { compareSessions } from './core/comparison.js';
export { Workspace } from './store/workspace.js';
export type { Progress, TaskOptions } from './tasks/progress.js';
export { resumeSurvey, survey } from './tasks/survey.js';
export type { ResumeOptions, SurveyOptions, SurveyResult } from './tasks/survey.js';
export { deleteSurvey } from './tasks/delete-survey.js';
export { rank } from './tasks/rank.js';
export type { RankResult } from './tasks/rank.js';
export { refit } from './tasks/refit.js';
export type { RefitOptions } from './tasks/refit.js';
export { refitPictures } from './tasks/refit-pictures.js';
export type { RefitPicturesOptions } from './tasks/refit-pictures.js';
export type { RefitManifest } from './core/refit-manifest.js';
export type { RefitResult } from './tasks/write-refit.js';
export { clock } from './tasks/clock.js';
export type { ClockOptions, ClockOutcome, ClockResult } from './tasks/clock.js';
export { compareSurveyLabels } from './tasks/compare-surveys.js';
export type { ComparedSurveys, SurveyComparison } from './core/survey-comparison.js';
export { compare } from './tasks/compare.js';
export type { ComparedPage } from './tasks/compare.js';
