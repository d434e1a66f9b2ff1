import type { Shot } from '../document/shot.js';
import { namesOf, type Finding } from './finding.js';

/** "2 faults, 5 warnings and 1 note in 11 riders"; dismissed findings are not counted. */
export function summaryOf(findings: readonly Finding[], riders: number): string {
  const count = (severity: Finding['severity']) =>
    findings.filter((finding) => finding.severity === severity && finding.dismissed === null).length;
  const parts = (['fault', 'warning', 'note'] as const).flatMap((severity) => {
    const number = count(severity);
    return number === 0 ? [] : [counted(number, severity)];
  });
  const all = parts.length === 0 ? 'no problems' : parts.join(', ').replace(/, ([^,]*)$/, ' and $1');
  return `${all} in ${counted(riders, 'rider')}`;
}

const counted = (number: number, noun: string) => `${number} ${noun}${number === 1 ? '' : 's'}`;

/** Findings as lines of text, a line a finding. */
export function reportText(findings: readonly Finding[], shot: Shot): string {
  const lines = findings.map(
    ({ severity, kind, message, dismissed }) =>
      `${dismissed === null ? severity : 'dismissed'}: ${kind}: ${message}${dismissed === null ? '' : ` (${dismissed})`}`,
  );
  return [`${shot.name}: ${summaryOf(findings, shot.riders.length)}`, ...lines].join('\n');
}

/** Findings as JSON. `remedy` and `waived` repeat `fix` and `dismissed` for programs that know the former names. */
export function reportJson(findings: readonly Finding[]): string {
  const rows = findings.map((finding) => ({ ...finding, remedy: finding.fix, waived: finding.dismissed }));
  return JSON.stringify(rows, null, 2);
}

const COLUMNS = [
  'severity',
  'kind',
  'rider',
  'other',
  'path',
  'part',
  'from',
  'to',
  'frame',
  'distance',
  'figure',
  'unit',
  'message',
  'dismissed',
] as const satisfies readonly (keyof Finding)[];

/** Findings as a table (RFC 4180); riders by their badges, paths by their names. */
export function reportCsv(findings: readonly Finding[], shot: Shot): string {
  const names = namesOf(shot);
  const cell = (value: string | number | null) => {
    const text = value === null ? '' : String(value);
    return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  };
  const row = (finding: Finding) =>
    COLUMNS.map((column) => {
      const value = finding[column];
      if (value === null) return '';
      if (column === 'rider' || column === 'other') return cell(names.rider(String(value)));
      return cell(column === 'path' ? names.path(String(value)) : value);
    }).join(',');
  return `${COLUMNS.join(',')}\r\n${findings.map((finding) => `${row(finding)}\r\n`).join('')}`;
}
