import { useEffect, useState, useSyncExternalStore } from 'react';
import { Outlet, useLocation } from 'react-router';
import { hear, wordsOf } from './english';
import { Waiting } from './says';
import { speak, spoken } from './trade';

/** Spoken shows each page in its own English, and begins it again when that changes. */
export function Spoken() {
	const { pathname } = useLocation();
	const wanted = useSyncExternalStore(hear, () => wordsOf(pathname));
	// What was tried last: without signal the other English may not be had.
	const [tried, setTried] = useState(spoken);
	useEffect(() => {
		let here = true;
		const done = () => here && setTried(wanted);
		speak(wanted).then(done, done);
		return () => {
			here = false;
		};
	}, [wanted]);
	return tried === wanted ? <Outlet key={wanted} /> : <Waiting text="One moment…" />;
}
