/**
 * The library under the program: the tasks, each of which does what the command of its name does and
 * prints nothing, and the computations they rest on.
 *
 * A task is given a `Workspace`, reports progress as events, and can be stopped by an `AbortSignal`.
 * Everything that goes wrong on purpose is a `LynxError` with a stable `code`.
 */
export * from './core/base/errors.js';
export type { Size } from './core/base/size.js';
export type { View } from './core/visitors/view.js';
export { chooseViews, defaultViews } from './core/visitors/view.js';
export type { Device } from './core/visitors/audience.js';
export { viewsOfAudience } from './core/visitors/audience.js';
export type { Access } from './core/address/access.js';
export type { NamedGroup } from './core/survey/page-groups.js';
export { groupPages } from './core/survey/page-groups.js';
export { sizesText } from './core/slots/sizes-text.js';
export type { Policy, EncodedFormat } from './core/policy/policy.js';
export { defaultPolicy } from './core/policy/policy.js';
export type { Network } from './core/visitors/network.js';
export { builtInNetworks, unshaped } from './core/visitors/network.js';
export type { Conditions } from './core/visitors/conditions.js';
export { differingConditions } from './core/visitors/conditions.js';
export type { ImageFile, ImageResponse } from './core/survey/image-file.js';
export type { Placement, PlacementKind } from './core/slots/placement.js';
export type { ObjectFit } from './core/slots/rendered-size.js';
export { renderedSize } from './core/slots/rendered-size.js';
export { needOf } from './core/policy/need.js';
export type { Cause, Waste, WasteByCause, WasteSteps } from './core/waste/waste.js';
export type { EncodedSteps } from './core/survey/encoded.js';
export { splitWaste, stepsAt } from './core/waste/waste.js';
export { similarity } from './core/pixels/similarity.js';
export { searchQuality } from './core/pixels/quality-search.js';
export { bytesWith, planWidths } from './core/slots/width-plan.js';
export type { Demand, WidthPlan } from './core/slots/width-plan.js';
export type { Portion } from './core/waste/portion.js';
export type { RankedImage, RankedPlacement } from './core/rank/ranked-image.js';
export type { RankTotals, Ranking } from './core/rank/ranking.js';
export { rankImages } from './core/rank/ranking.js';
export { demandsOf } from './core/rank/demands.js';
export { familyOf } from './core/rank/family.js';
export { groupRows, groupings } from './core/rank/groupings.js';
export type { GroupRow, Grouping } from './core/rank/groupings.js';
export { deliveriesOf } from './core/rank/filter.js';
export { rowsOf } from './core/rank/rank-view.js';
export type { SurveySummary, SurveyFacts, SurveyHead, SurveyedPage } from './core/survey/survey.js';
export type { Encoded } from './core/survey/encoded.js';
export type { Markers, MarkerName } from './core/load/markers.js';
export type { PageRequest, Phases } from './core/load/request.js';
export type { Run, Session, SessionSummary } from './core/load/session.js';
export { medianRun, summariseSession } from './core/load/session.js';
export type { Change, SessionComparison } from './core/load/comparison.js';
export { compareSessions } from './core/load/comparison.js';
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
export type { RefitManifest } from './core/refit/refit-manifest.js';
export type { RefitResult } from './tasks/write-refit.js';
export { clock } from './tasks/clock.js';
export type { ClockOptions, ClockOutcome, ClockResult } from './tasks/clock.js';
export { compareSurveyLabels } from './tasks/compare-surveys.js';
export type { ComparedSurveys, SurveyComparison } from './core/rank/survey-comparison.js';
export { compare } from './tasks/compare.js';
export type { ComparedPage } from './tasks/compare.js';
