import './app.css';
import { catalogue } from '../words/catalogue';
import { localeOf } from '../words/locale';
import { opened } from './pages';

// The frame of the page, what is opened in it and the words for both are fetched beside each other.
catalogue[localeOf(location.pathname)]().catch(() => undefined); // trade takes the other
opened(location.pathname).catch(() => undefined); // the router tries again, and says so
import('./main');
