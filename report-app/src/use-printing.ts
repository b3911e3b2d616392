import { useEffect, useState } from 'preact/hooks';

/** Whether the report is being printed: on paper nobody can scroll, or ask for the rest. */
export function usePrinting(): boolean {
  const [isPrinting, setPrinting] = useState(false);
  useEffect(() => {
    const begin = () => setPrinting(true);
    const end = () => setPrinting(false);
    addEventListener('beforeprint', begin);
    addEventListener('afterprint', end);
    return () => {
      removeEventListener('beforeprint', begin);
      removeEventListener('afterprint', end);
    };
  }, []);
  return isPrinting;
}
