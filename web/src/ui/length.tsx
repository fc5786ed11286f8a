import { createContext, type ReactNode, useContext, useState } from 'react';
import type { Figure, Text, Unit } from '../api/client';
import { Phrase } from '../words/phrase';
import { say, type TextId } from '../words/texts';
import { Dialog } from './dialog';

/** The unit that figures are shown in; a tap switches it. */
export const ShownIn = createContext<Unit>('mm');

/** Whether figures are doubtful, because readings clash: nothing is cut or marked by them. */
export const Doubtful = createContext(false);

const sources: Record<string, TextId> = {
	reading: 'page.source-reading',
	estimate: 'page.source-estimate',
	choice: 'page.source-choice',
	rule: 'page.source-rule',
	rounding: 'page.source-rounding',
};

/** sourceName is the origin of a figure's term. */
export function sourceName(source: string) {
	return sources[source] ? say(sources[source]) : source;
}

/** Fractions are set as fractions: "30 5/8" is a whole number and a fraction glyph. */
export function Digits({ children }: { children: string }) {
	const m = /^(-?)(?:(\d+) )?(\d+)\/(\d+)$/.exec(children);
	if (!m) return <>{children.replace('-', '−')}</>;
	return (
		<>
			{m[1] && '−'}
			{m[2]}
			<span className="frac">
				{m[2] && '\u2009'}
				{m[3]}/{m[4]}
			</span>
		</>
	);
}

/** SvgDigits is Digits inside an SVG text. */
export function SvgDigits({ text }: { text: Text }) {
	const s = pick(text, useContext(ShownIn)).replace('-', '−');
	const m = /^(.*?)(\d+\/\d+)$/.exec(s);
	if (!m) return <>{s}</>;
	return (
		<>
			{m[1]?.trim()}
			{m[1]?.trim() && '\u2009'}
			<tspan className="frac">{m[2]}</tspan>
		</>
	);
}

export function pick(text: Text, unit: Unit) {
	return unit === 'in' ? text.in : text.mm;
}

/** Len is a length in the shown unit. */
export function Len({ text, unit: withUnit }: { text: Text; unit?: boolean }) {
	const unit = useContext(ShownIn);
	return (
		<span className="whitespace-nowrap">
			<Digits>{pick(text, unit)}</Digits>
			{withUnit && <span className="text-[0.8em]"> {unit}</span>}
		</span>
	);
}

/** Sure is a figure's ±: 19 times in 20 the true value lies inside. */
export function Sure({ text }: { text: Text }) {
	const unit = useContext(ShownIn);
	const s = pick(text, unit);
	if (!s) return null;
	return (
		<span className="dim text-[0.75em] opacity-80 whitespace-nowrap">
			{' ±'}
			<Digits>{s}</Digits>
		</span>
	);
}

/** Why is a figure that can be pressed for its terms. */
export function Why({
	figure,
	title,
	className = '',
	bare,
	id,
}: {
	figure: Figure;
	title: string;
	className?: string;
	bare?: boolean;
	id?: string;
}) {
	const [open, setOpen] = useState(false);
	const unit = useContext(ShownIn);
	const doubtful = useContext(Doubtful);
	return (
		<>
			<button
				type="button"
				className={`why ${doubtful ? 'doubtful' : ''} ${className}`}
				data-figure={id}
				data-mm={figure.mm}
				data-doubtful={doubtful || undefined}
				title={say('page.why-figure', { figure: pick(figure.text, unit) })}
				onClick={() => setOpen(true)}
			>
				<span className="sr-only">{title}: </span>
				{doubtful && '? '}
				<span data-shown>
					<Len text={figure.text} />
				</span>
				{!bare && <Sure text={figure.plusMinus} />}
				<span className="sr-only"> {say(doubtful ? 'page.doubtful-why' : 'page.why', { unit })}</span>
			</button>
			{open && <WhyDialog figure={figure} title={title} close={() => setOpen(false)} />}
		</>
	);
}

/** WhyDialog lists the terms of a figure, over the page. */
export function WhyDialog({ figure, title, close }: { figure: Figure; title: string; close: () => void }) {
	return (
		<Dialog label={say('page.why-title', { title })} close={close}>
			<h3 className="text-xl mb-3 first-letter:uppercase">{title}</h3>
			<Sum figure={figure} />
		</Dialog>
	);
}

function Sum({ figure }: { figure: Figure }) {
	const unit = useContext(ShownIn);
	return (
		<table className="w-full">
			<tbody>
				{figure.terms.map((t) => (
					<tr key={t.label} className="border-b border-base-300 align-baseline">
						<td className="py-1.5 pr-3">
							{t.label}
							<div className="text-sm opacity-75">{sourceName(t.source)}</div>
						</td>
						<td className="py-1.5 text-right dim text-lg">
							<Digits>{pick(t.text, unit)}</Digits>
							<Sure text={t.plusMinus} />
						</td>
					</tr>
				))}
				<tr className="align-baseline">
					<th className="py-2 text-left">
						{pick(figure.plusMinus, unit) ? (
							<>
								<Phrase id="page.sure-to" of={{ sure: <Len text={figure.plusMinus} unit /> }} />
								<span className="font-normal">{say('page.19-times-in-20')}</span>
							</>
						) : (
							say('page.exact')
						)}
					</th>
					<td className="py-2 text-right text-2xl dim">
						<Len text={figure.text} unit />
					</td>
				</tr>
			</tbody>
		</table>
	);
}

/** Because is a value other than a length that can be pressed for its reasons, in sentences. */
export function Because({
	text,
	why,
	title,
	id,
}: {
	text: string;
	why: string[];
	title: string;
	id?: string;
}) {
	const [open, setOpen] = useState(false);
	const doubtful = useContext(Doubtful);
	return (
		<>
			<button
				type="button"
				className={`why ${doubtful ? 'doubtful' : ''}`}
				data-figure={id}
				title={say('page.why-text', { text })}
				onClick={() => setOpen(true)}
			>
				<span className="sr-only">{title}: </span>
				{doubtful && '? '}
				<span data-shown>{text}</span>
				<span className="sr-only">{say(doubtful ? 'page.doubtful-why' : 'page.why', { unit: '' })}</span>
			</button>
			{open && (
				<Dialog label={say('page.why-title', { title })} close={() => setOpen(false)}>
					<h3 className="text-xl mb-3 first-letter:uppercase">{title}</h3>
					<ul className="mb-3">
						{why.map((w) => (
							<li key={w} className="border-b border-base-300 py-1.5 first-letter:uppercase">
								{w}
							</li>
						))}
					</ul>
					<p className="text-2xl text-right">{text}</p>
				</Dialog>
			)}
		</>
	);
}

/** Row is one line of a list of figures. */
export function Row({ label, children, note }: { label: ReactNode; children: ReactNode; note?: ReactNode }) {
	return (
		<div className="flex items-center gap-3 border-b border-base-300 py-1">
			<div className="grow">
				{label}
				{note && <div className="text-sm opacity-75">{note}</div>}
			</div>
			<div className="text-2xl dim text-right">{children}</div>
		</div>
	);
}
