import { formatBytes, formatShare } from './numbers.js';

export interface Part {
  readonly name: string;
  readonly bytes: number;
  /** A class that colours and patterns it. */
  readonly look: string;
}

/** Parts of a whole as one bar, with its legend as a table: it is read without colours as well. */
export function PartBar({
  parts,
  label,
}: {
  readonly parts: readonly Part[];
  readonly label: string;
}) {
  const whole = parts.reduce((sum, { bytes }) => sum + bytes, 0);
  if (whole === 0) return <p class="faint">Nothing.</p>;
  const shown = parts.filter(({ bytes }) => bytes > 0);
  return (
    <figure class="part-bar">
      <div class="bar" aria-hidden="true">
        {shown.map(({ name, bytes, look }) => (
          <span
            key={name}
            class={look}
            style={{ flexGrow: bytes }}
            title={`${name}: ${formatBytes(bytes)}`}
          />
        ))}
      </div>
      <table class="legend">
        <caption class="unseen">{label}</caption>
        <tbody>
          {shown.map(({ name, bytes, look }) => (
            <tr key={name}>
              <th scope="row">
                <span class={`key ${look}`} aria-hidden="true" />
                {name}
              </th>
              <td>{formatBytes(bytes)}</td>
              <td class="faint">{formatShare(bytes, whole)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}
