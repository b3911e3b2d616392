import { keptAddress } from '../../core/address/address.js';
import type {
  DocumentParts,
  FontUse,
  HintElement,
  LayoutShift,
  ScriptElement,
  ScriptTime,
  SheetElement,
  VideoElement,
} from '../../core/survey/load-facts.js';
import { fontFaces, isFrom } from './font-faces.js';
import type { DeclaredFace } from './font-faces.js';
import { fontUseOf } from './font-use.js';
import { resolveAddress } from './resolve.js';
import { scriptTimes } from './script-times.js';
import { selectorOf } from './selector.js';
import { layoutShifts } from './shifts.js';

/** How the document loaded, as the document itself can tell. */
export interface FoundLoad {
  readonly elements: number;
  readonly parts: DocumentParts;
  readonly shifts: readonly LayoutShift[];
  readonly scriptTimes: readonly ScriptTime[];
  readonly fontUse: readonly FontUse[];
}

/** The most elements of a kind that are told of. */
const most = 300;
const maxAddress = 4_096;

export async function loadFacts(): Promise<FoundLoad> {
  const faces = fontFaces();
  const [shifts, times] = await Promise.all([layoutShifts(), scriptTimes()]);
  return {
    elements: document.getElementsByTagName('*').length,
    parts: { ...orderOf(), hints: hintsOf(faces), ...fontsAndVideos(faces) },
    shifts,
    scriptTimes: times,
    fontUse: fontUseOf(faces),
  };
}

function addressOf(element: Element, attribute: string): string | undefined {
  const text = element.getAttribute(attribute);
  if (!text || text.length > maxAddress) return undefined;
  const url = resolveAddress(text);
  return url && /^https?:/.test(url) ? keptAddress(url) : undefined;
}

const isClassic = /^(?:(?:text|application)\/(?:java|ecma)script|)$/i;

function runsOf(script: HTMLScriptElement): ScriptElement['runs'] | undefined {
  const isModule = script.type === 'module';
  if (!isModule && !isClassic.test(script.type.trim())) return undefined;
  if (script.async) return 'async';
  return isModule || script.defer ? 'deferred' : 'at-once';
}

/** Scripts and style sheets in the order in which the document names them. */
function orderOf(): Pick<DocumentParts, 'scripts' | 'sheets' | 'writes'> {
  const scripts: ScriptElement[] = [];
  const sheets: SheetElement[] = [];
  let writes = 0;
  for (const element of document.querySelectorAll('script, link[rel~="stylesheet" i][href]')) {
    if (element instanceof HTMLLinkElement) {
      const url = addressOf(element, 'href');
      const applies = !element.disabled && (!element.media || matchMedia(element.media).matches);
      const afterScript = scripts.some(({ runs }) => runs === 'at-once');
      if (url && applies && sheets.length < most) sheets.push({ url, afterScript });
    } else if (element instanceof HTMLScriptElement) {
      const runs = runsOf(element);
      const url = addressOf(element, 'src');
      const inHead = document.head?.contains(element) ?? false;
      if (runs && url && scripts.length < most) scripts.push({ url, runs, inHead });
      if (runs && !element.src && /\bdocument\.write(?:ln)?\s*\(/.test(element.text)) writes++;
    }
  }
  return { scripts, sheets, writes };
}

function hintsOf(faces: readonly DeclaredFace[]): HintElement[] {
  const styles = new Set([...document.styleSheets].map(({ href }) => href));
  const scripts = new Set([...document.scripts].map(({ src }) => src));
  const usedBy = (as: string, url: string): boolean | null => {
    if (as === 'style') return styles.has(url);
    // What a module imports is not in the document.
    if (as === 'script') return scripts.has(url) ? true : null;
    if (as === 'font') return faces.some((face) => face.used && isFrom(face, url));
    return null;
  };
  const hints: HintElement[] = [];
  for (const link of document.querySelectorAll<HTMLLinkElement>('link[rel][href]')) {
    const rel = (['preload', 'modulepreload', 'preconnect'] as const).find((name) =>
      link.relList.contains(name),
    );
    const url = rel && addressOf(link, 'href');
    if (!url || hints.length >= most) continue;
    const as = link.as.toLowerCase().slice(0, 20);
    const used = rel === 'preload' ? usedBy(as, link.href) : null;
    hints.push({ rel, url, as, crossOrigin: link.crossOrigin !== null, used });
  }
  return hints;
}

function fontsAndVideos(
  faces: readonly DeclaredFace[],
): Pick<DocumentParts, 'fontFaces' | 'videos'> {
  const videos: VideoElement[] = [];
  for (const video of document.querySelectorAll('video')) {
    const source = video.hasAttribute('src') ? video : video.querySelector('source[src]');
    const url = source && addressOf(source, 'src');
    if (!url || videos.length >= most) continue;
    const { width, height } = video.getBoundingClientRect();
    videos.push({
      url,
      selector: selectorOf(video),
      autoplay: video.autoplay,
      hasPoster: video.poster !== '',
      width: Math.round(width),
      height: Math.round(height),
      naturalWidth: video.videoWidth,
      naturalHeight: video.videoHeight,
    });
  }
  return {
    fontFaces: faces.map(({ family, urls, display, isPart, used }) => ({
      ...{ family, display, isPart, used },
      urls: urls.map((url) => keptAddress(url)),
    })),
    videos,
  };
}
