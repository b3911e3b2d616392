import { useState } from 'preact/hooks';

/** Puts a text on the clipboard, and says that it did. */
export function CopyButton({
  text,
  children,
}: {
  readonly text: string;
  readonly children: string;
}) {
  const [told, setTold] = useState('');
  const copy = async () => {
    setTold((await put(text)) ? 'Copied' : 'Select the text and copy it by hand');
    setTimeout(() => setTold(''), 3_000);
  };
  return (
    <span class="copy">
      <button type="button" onClick={() => void copy()}>
        {children}
      </button>
      <span role="status" class="faint">
        {told}
      </span>
    </span>
  );
}

/** A file opened from disk has no clipboard of its own in every browser: a selection can be copied everywhere. */
async function put(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    return true;
  } catch {
    const area = document.createElement('textarea');
    area.value = text;
    document.body.append(area);
    area.select();
    const done = document.execCommand('copy');
    area.remove();
    return done;
  }
}

/** A text to copy. */
export function Code({ text, what }: { readonly text: string; readonly what: string }) {
  return (
    <div class="code">
      <pre tabIndex={0} aria-label={what}>
        <code>{text}</code>
      </pre>
      <CopyButton text={text}>Copy</CopyButton>
    </div>
  );
}
