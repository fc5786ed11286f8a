import { readTexts } from './texts';
import british from './texts.en-GB.gen.json';

// Tests read British, whatever the browser that they run in reads.
readTexts('en-GB', british);
globalThis.localStorage?.setItem('words', 'en-GB');
