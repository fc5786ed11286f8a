import { readTexts } from '../words/texts';
import british from '../words/texts.en-GB.gen.json';

// Tests read British, whatever the browser that they run in reads.
readTexts('en-GB', british);
globalThis.localStorage?.setItem('words', 'en-GB');
