import { useCallback, useState } from 'react';

/** The least height of a drawing's figures and of its other texts, in px. */
const leastFigure = 14;
const leastLabel = 12;

/**
 * useLegible keeps a drawing's texts legible at every size of it: ref goes on its SVG, and figure and label are at
 * least so many of its units as their least heights in pixels take.
 */
export function useLegible() {
	const [unit, setUnit] = useState(0);
	const ref = useCallback((svg: SVGSVGElement | null) => {
		if (!svg) return;
		const measure = () => {
			const scale = svg.getScreenCTM()?.a;
			if (scale) setUnit(1 / scale);
		};
		measure();
		const seen = new ResizeObserver(measure);
		seen.observe(svg);
		return () => seen.disconnect();
	}, []);
	return {
		ref,
		figure: (font: number) => Math.max(font, leastFigure * unit),
		label: (font: number) => Math.max(font, leastLabel * unit),
	};
}
