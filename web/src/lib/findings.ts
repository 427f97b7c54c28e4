/** How a rig's findings stand on a page: its own open, all others in one line. */
import { STAGES } from '../stages';
import type { Assessment, Finding, StageKey } from './api';

/** On a page of its own kind so many stand open: what is wrong always, what is well once. */
const MOST_OPEN = { stop: Infinity, mend: Infinity, watch: 2, good: 1 } as const;

export interface Placed {
  /** Dangers, whatever page they belong to. */
  stops: Finding[];
  /** What stands open on this page. */
  open: Finding[];
  /** What belongs to this page and waits in one line each. */
  more: Finding[];
  /** What belongs to other pages. */
  elsewhere: Finding[];
  /** True on a first evening, where a few things of the whole rig are enough. */
  first: boolean;
}

/** Place the findings on a page of a stage, or on one of the whole rig; `said` has its own card. */
export function placed(
  { findings, first_things: first }: Pick<Assessment, 'findings' | 'first_things'>,
  stage: StageKey | null,
  said: string | null,
): Placed {
  const stops = findings.filter(({ severity }) => severity === 'stop');
  const others = findings.filter(({ id, severity }) => severity !== 'stop' && id !== said);
  if (first) {
    const open = others.filter(({ id }) => first.includes(id));
    const more = others.filter(({ id }) => !first.includes(id));
    return { stops, open, more, elsewhere: [], first: true };
  }
  const own = others.filter(({ homes }) => stage === null || homes?.includes(stage));
  const most = stage === null ? { ...MOST_OPEN, mend: 1, watch: 1 } : MOST_OPEN;
  const open = foremost(own, most);
  return {
    stops,
    open,
    more: own.filter((finding) => !open.includes(finding)),
    elsewhere: others.filter((finding) => !own.includes(finding)),
    first: false,
  };
}

/** The first few of what is found, by the same measure. */
export function foremost(
  findings: Finding[],
  most: Record<Finding['severity'], number> = MOST_OPEN,
): Finding[] {
  const taken = { stop: 0, mend: 0, watch: 0, good: 0 };
  return findings.filter(({ severity }) => (taken[severity] += 1) <= most[severity]);
}

/** How many findings belong to which stage: “Flight 2 · Nock 1”. */
export function byStage(findings: Finding[]): string {
  const counts = STAGES.map(({ key, name }) => [
    name,
    findings.filter(({ stage }) => stage === key).length,
  ]);
  return counts
    .filter(([, count]) => count)
    .map(([name, count]) => `${name} ${count}`)
    .join(' · ');
}

const SEVERITIES = ['mend', 'watch', 'good'] as const;
const WORDS = { mend: 'Mend', watch: 'Watch', good: 'Good' };

/** How many of each severity: “1 Mend, 3 Watch”. */
export function bySeverity(findings: Finding[]): string {
  return SEVERITIES.map((severity) => [
    WORDS[severity],
    findings.filter((finding) => finding.severity === severity).length,
  ])
    .filter(([, count]) => count)
    .map(([word, count]) => `${count} ${word}`)
    .join(', ');
}

/** What a stage is called. */
export const nameOf = (stage: StageKey): string =>
  STAGES.find(({ key }) => key === stage)?.name ?? stage;
