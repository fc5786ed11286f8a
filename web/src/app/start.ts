import './app.css';
import { catalogue } from '../words/catalogue';
import { localeOf } from '../words/locale';
import { opened } from './pages';

// The page's shell, its first page and the words for both are fetched in parallel.
catalogue[localeOf(location.pathname)]().catch(() => undefined); // trade takes the other
opened(location.pathname).catch(() => undefined); // the router tries again, and says so
import('./main');
