import { render } from 'preact';
import { App } from './app.js';
import { readReport } from './data.js';
import './style.css';

const place = document.getElementById('app')!;
readReport().then(
  (report) => {
    place.replaceChildren();
    render(<App report={report} />, place);
  },
  () => {
    place.textContent =
      'The report cannot be opened: the file is not complete, or the browser is too old (it needs DecompressionStream).';
  },
);
