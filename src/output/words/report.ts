import { hostOf } from '../../core/address/address.js';
import { fixCurve, fixesFor } from '../../core/report/fix-curve.js';
import type { ReportView } from '../views/report.js';
import { findingTitle } from './findings.js';
import { withoutOrigin } from './plain-text.js';
import { originOf } from './rank.js';
import { count, formatBytes, formatShare, formatTime } from './units.js';

/** The share that most people call nearly all of it. */
const mostOfIt = 0.8;

/** What a report comes to, in sentences that can be read out. */
export function reportSentences(view: ReportView): string[] {
  return [imageSentence(view), fixSentence(view), otherSentence(view)].filter(
    (sentence) => sentence !== '',
  );
}

function imageSentence({ ranking: { result, total } }: ReportView): string {
  const site = hostOf(result.survey.starts[0] ?? '') || 'the site';
  if (total.sentBytes === 0) return `No page of ${site} that was surveyed shows an image.`;
  const { sentBytes, neededBytes, wasteBytes } = total;
  return `An average visit to ${site} is sent ${formatBytes(sentBytes)} of images and needs ${formatBytes(neededBytes)}: ${formatShare(wasteBytes, sentBytes)} of it is waste.`;
}

function fixSentence({ ranking: { rows, result } }: ReportView): string {
  const savings = rows.map(({ perVisit }) => perVisit.wasteBytes);
  const needed = fixesFor(fixCurve(savings), mostOfIt);
  const [first] = rows;
  const all = savings.filter((bytes) => bytes > 0).length;
  if (needed === 0 || !first) return '';
  const where = withoutOrigin(first.family?.where ?? '', originOf(result.survey));
  const which =
    needed === 1
      ? 'The first fix alone wins four fifths of it'
      : `${needed} of ${count(all, 'fix', 'fixes')} win four fifths of it`;
  return `${which}; the first, images on ${where || 'several pages'}, saves ${formatBytes(first.perVisit.wasteBytes)} of a visit.`;
}

function otherSentence({ comparisons, site }: ReportView): string {
  const proved = comparisons.find(({ comparison }) => {
    const { verdict } = comparison.markers.largestContentfulPaint;
    return verdict === 'less' || verdict === 'more';
  });
  if (proved) {
    const { before, after } = proved.comparison.markers.largestContentfulPaint;
    const since = /^trial-.*after$/.test(proved.after.label)
      ? 'With the fixes that were tried,'
      : `In ${proved.after.label},`;
    return `${since} the largest picture or text of ${proved.before.page} is there after ${formatTime(after!.median)} instead of ${formatTime(before!.median)}.`;
  }
  const [worst] = site;
  if (!worst) return '';
  const { perVisit, timePerVisit, pages } = worst;
  const cost = [
    ...(perVisit ? [formatBytes(perVisit)] : []),
    ...(timePerVisit ? [formatTime(timePerVisit)] : []),
  ].join(' and ');
  const words = `Besides the images, what costs the most is this: ${findingTitle(worst.id)}`;
  return `${words}${cost ? ` (${cost} of a visit)` : ''}, on ${count(pages.length, 'page')}.`;
}
