/** A script element that loads a file. */
export interface ScriptElement {
  readonly url: string;
  /** How it runs (HTML, section 4.12.1): at once, when the document has been read, or when it has arrived. */
  readonly runs: 'at-once' | 'deferred' | 'async';
  readonly inHead: boolean;
}

/** A style sheet that the document links to. */
export interface SheetElement {
  readonly url: string;
  /** Whether a script that runs at once stands before it. */
  readonly afterScript: boolean;
}

/** A link that asks the browser to load or to connect ahead of time (HTML, section 4.6.7). */
export interface HintElement {
  readonly rel: 'preload' | 'modulepreload' | 'preconnect';
  readonly url: string;
  /** What a preload is for; empty if it does not say. */
  readonly as: string;
  /** Whether it has the attribute `crossorigin`. */
  readonly crossOrigin: boolean;
  /** Whether the page used what was loaded; `null` if that is not known. */
  readonly used: boolean | null;
}

/** A font that a style sheet declares (`@font-face`). */
export interface FontFaceRule {
  readonly family: string;
  /** The files that it may be loaded from, the first first. */
  readonly urls: readonly string[];
  /** `font-display` (CSS Fonts 4, section 11); `auto` if nothing is said. */
  readonly display: string;
  /** Whether it covers only some characters (`unicode-range`). */
  readonly isPart: boolean;
  readonly used: boolean;
}

/** A film in the page. */
export interface VideoElement {
  readonly url: string;
  readonly selector: string;
  readonly autoplay: boolean;
  readonly hasPoster: boolean;
  /** Its box in CSS pixels; 0 where it is not shown. */
  readonly width: number;
  readonly height: number;
  /** Pixels of the film; 0 if they are not known. */
  readonly naturalWidth: number;
  readonly naturalHeight: number;
}

/** What the document is made of, as far as it bears on loading: the same on most pages of a template. */
export interface DocumentParts {
  readonly scripts: readonly ScriptElement[];
  readonly sheets: readonly SheetElement[];
  readonly hints: readonly HintElement[];
  readonly fontFaces: readonly FontFaceRule[];
  readonly videos: readonly VideoElement[];
  /** Scripts in the document that call `document.write`. */
  readonly writes: number;
}

/** An element that moved while the page loaded (Layout Instability, WICG). */
export interface LayoutShift {
  /** Its share of the score: the score of a shift goes to the element that moved the largest area. */
  readonly score: number;
  readonly selector: string;
  /** The element without a size that arrived above it; `null` if none was seen. */
  readonly cause: { readonly selector: string; readonly url: string } | null;
}

/** What a script did in frames that were long (Long Animation Frames, W3C): all its runs of a visit together. */
export interface ScriptTime {
  /** Address of the script; of the document where it stands there. */
  readonly url: string;
  /** The function that took the longest; empty if it has no name. */
  readonly function: string;
  /** Milliseconds on the main thread. */
  readonly time: number;
  /** Those of them in which styles and layout were computed because the script asked for a size. */
  readonly forced: number;
}

/**
 * What a visit used of a text: of a style sheet, the ranges of its rules that matched an element; of a script, the ranges
 * of functions that were not called. Offsets in UTF-16 units: start and end of each, in rising order.
 */
export interface TextUse {
  readonly contentHash: string;
  readonly ranges: readonly number[];
}

/** The characters that a page draws with a font. */
export interface FontUse {
  readonly url: string;
  /** Each once, in the order of their code points. */
  readonly characters: string;
}

/** How a visit loaded, besides what it was sent. */
export interface LoadFacts {
  /** Milliseconds from the request of the document to the first byte of its response. */
  readonly wait: number;
  /** The addresses that led to the document. */
  readonly redirects: readonly string[];
  readonly elements: number;
  readonly parts: DocumentParts;
  readonly shifts: readonly LayoutShift[];
  readonly scriptTimes: readonly ScriptTime[];
  readonly styleUse: readonly TextUse[];
  readonly scriptUse: readonly TextUse[];
  readonly fontUse: readonly FontUse[];
}
