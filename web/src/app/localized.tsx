import { useEffect, useState, useSyncExternalStore } from 'react';
import { Outlet, useLocation } from 'react-router';
import { Waiting } from '../ui/says';
import { localeOf, subscribe } from '../words/locale';
import { say } from '../words/texts';
import { loadLocale, locale } from '../words/trade';

/** Localized renders each page in its own locale, and remounts it when that changes. */
export function Localized() {
	const { pathname } = useLocation();
	const wanted = useSyncExternalStore(subscribe, () => localeOf(pathname));
	// The locale that was tried last: without signal the other may not be cached.
	const [tried, setTried] = useState(locale);
	useEffect(() => {
		let here = true;
		const done = () => here && setTried(wanted);
		loadLocale(wanted).then(done, done);
		return () => {
			here = false;
		};
	}, [wanted]);
	return tried === wanted ? <Outlet key={wanted} /> : <Waiting text={say('page.one-moment')} />;
}
