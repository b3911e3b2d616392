import { useEffect, useState } from 'preact/hooks';

/** Where in the report somebody is: the view, and what is selected there. Kept in the address, so that it can be passed on. */
export interface Place {
  readonly view: string;
  readonly selected: string;
}

function read(): Place {
  const [view = '', ...rest] = location.hash.slice(1).split('/');
  return { view, selected: decodeURIComponent(rest.join('/')) };
}

export function go(view: string, selected = ''): void {
  location.hash = selected === '' ? view : `${view}/${encodeURIComponent(selected)}`;
}

export function usePlace(): Place {
  const [place, setPlace] = useState(read);
  useEffect(() => {
    const onChange = () => setPlace(read());
    addEventListener('hashchange', onChange);
    return () => removeEventListener('hashchange', onChange);
  }, []);
  return place;
}
