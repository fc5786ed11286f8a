import { useCallback, useEffect, useLayoutEffect, useState } from 'react';

/** The least height of a drawing's figures and of its other texts, in px. */
const leastFigure = 14;
const leastLabel = 12;

/**
 * useLegible keeps a drawing's texts legible at every scale of it: ref goes on its SVG, and figure and label are at
 * least so many of its units as their least heights in pixels take.
 */
export function useLegible() {
	const [svg, ref] = useState<SVGSVGElement | null>(null);
	const [unit, setUnit] = useState(0);
	const measure = useCallback(() => {
		const scale = svg?.getScreenCTM()?.a;
		// The size of its texts may change a drawing's box by a hair: that is no other scale.
		if (scale) setUnit((was) => (Math.abs(was * scale - 1) < 0.01 ? was : 1 / scale));
	}, [svg]);
	// Each time that it is drawn: its view box may be another one, as when it comes to the next reading.
	useLayoutEffect(measure);
	useEffect(() => {
		if (!svg) return;
		const seen = new ResizeObserver(measure);
		seen.observe(svg);
		return () => seen.disconnect();
	}, [svg, measure]);
	return {
		ref,
		figure: (font: number) => Math.max(font, leastFigure * unit),
		label: (font: number) => Math.max(font, leastLabel * unit),
	};
}
