import type { Shapes } from '../api/client';
import { counted, moment } from '../state/moments';

type Entry = Shapes['EntryShape'];

/** What a line did, as an entry keeps it. */
export type Outcome =
    | { kind: 'set'; label: string; before: string; after: string; changed: boolean; on?: string }
    | { kind: 'task'; title: string; person: string | null; path: string; stoodIn: boolean; due: string | null }
    | { kind: 'message'; channel: string; to: string; subject: string; missing: string[] }
    | { kind: 'created'; record: string }
    | { kind: 'comment'; text: string; on?: string }
    | { kind: 'follow'; person: string; follows: boolean }
    | { kind: 'failed' | 'skipped' | 'dropped'; label: string; why: string }
    | { kind: 'cut_off'; label: string; done: number; of: number }
    | { kind: 'waits'; label: string; why: string; until: string };

export function outcomes(entry: Entry): Outcome[] {
    return (entry.data.did as Outcome[] | undefined) ?? [];
}

export function verdict(entry: Entry): Shapes['VerdictShape'] | undefined {
    return entry.data.why as Shapes['VerdictShape'] | undefined;
}

const ANSWERED = ['created', 'changed', 'deleted', 'comment', 'file', 'task_done', 'reply', 'by_hand'];

/** Lines that an entry is about: how each reads, when it was to fall due, and when it will. */
type Lines = { said: string; due: string | null; to?: string | null }[];
const linesOf = (entry: Entry): Lines => (entry.data.lines as Lines | undefined) ?? [];

/** A kind of pencilled line, as its row begins. */
export function lineKind(kind: string): string {
    return (
        { task_due: 'Task falls due:', start: 'The rule starts:', round: 'The rule looks at it:', remind: '', escalate: 'Escalate:' }[
            kind
        ] ?? ''
    );
}

/** Whether rules were asked when it happened, so that each can be asked why it did or did not fire. */
export function wasAnswered(entry: Entry): boolean {
    return ANSWERED.includes(entry.kind) && entry.recordId !== null;
}

/** What a line did, in a few words. */
export function outcomeSaid(outcome: Outcome): string {
    const on = 'on' in outcome && outcome.on ? ` on ${outcome.on}` : '';
    switch (outcome.kind) {
        case 'set':
            return outcome.changed ? `${outcome.label}${on} set to ${outcome.after}` : `${outcome.label}${on} was ${outcome.after} already`;
        case 'failed':
            return `${outcome.label} could not be done: ${outcome.why}`;
        case 'cut_off':
            return `${outcome.label}: only ${outcome.done} of ${outcome.of} were taken`;
        case 'waits':
            return `${outcome.label} waits until ${outcome.until}: ${outcome.why}`;
        case 'dropped':
            return `${outcome.label} was dropped: ${outcome.why}`;
        case 'skipped':
            return `Left out: ${outcome.label}, ${outcome.why}`;
        case 'message': {
            const what = { email: 'E-mail', sms: 'Text message', app: 'Note' }[outcome.channel] ?? 'Message';
            const missing = outcome.missing.length ? `, without ${outcome.missing.join(', ')}` : '';
            return `${what} ${outcome.subject ? `“${outcome.subject}” ` : ''}to ${outcome.to}${missing}`;
        }
        case 'created':
            return `Made ${outcome.record}`;
        case 'comment':
            return `Commented${on}: “${outcome.text}”`;
        case 'follow':
            return `${outcome.person} ${outcome.follows ? 'follows it' : 'follows it no more'}`;
        default:
            return `Task “${outcome.title}” to ${outcome.person ?? 'nobody'}${outcome.due ? `, due ${outcome.due}` : ''}`;
    }
}

const ADMINISTRATION: Record<string, string> = { rule_in_force: 'put in force', rule_paused: 'paused', rule_retired: 'retired' };

/** An entry as a headline: who or what, and what happened. */
export function headline(entry: Entry, numbered = false): { strong: string; rest: string } {
    const who = entry.who ?? 'Somebody';
    // A number never breaks at its hyphen.
    const what = numbered && entry.recordNumber ? ` ${entry.recordNumber.replace('-', '\u2011')}` : '';
    const title = String(entry.data.title ?? '');
    switch (entry.kind) {
        case 'created':
            if (entry.via === 'rule') return { strong: 'A rule', rest: `made ${numbered ? what.trim() : 'it'}` };
            return { strong: who, rest: `created${numbered ? what : ' it'}${entry.via === 'api' ? ' through the API' : ''}` };
        case 'deleted':
            return { strong: who, rest: `deleted${numbered ? what : ' it'}` };
        case 'restored':
            return { strong: who, rest: `brought${numbered ? what : ' it'} back` };
        case 'comment':
            return { strong: entry.via === 'rule' ? 'A rule' : who, rest: `commented${numbered ? ` on${what}` : ''}` };
        case 'file':
            return { strong: who, rest: `added the file ${String(entry.data.name ?? '')}${numbered ? ` to${what}` : ''}` };
        case 'by_hand':
            return { strong: who, rest: `ran ${entry.ruleName ?? 'a rule'} by hand${numbered ? ` on${what}` : ''}` };
        case 'refused':
            return { strong: entry.ruleName ?? 'A rule', rest: `refused a save${what ? ` of${what}` : ''} by ${who}` };
        case 'reversed':
            return { strong: who, rest: `reversed entry ${String(entry.data.of)}${numbered && what ? ` on${what}` : ''}` };
        case 'ready_again':
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `is ready again${numbered ? ` for${what}` : ''}${entry.via === 'person' ? `, by ${who}` : ''}`,
            };
        case 'rules_ordered':
            return { strong: who, rest: 'put the rules in another order' };
        case 'rule_in_set':
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: entry.data.set
                    ? `stands in the either/or set “${String(entry.data.set)}”, by ${who}`
                    : `stands in no either/or set any more, by ${who}`,
            };
        case 'changed': {
            const fields = entry.changes.map((change) => change.label);
            const list = fields.length > 3 ? `${fields.slice(0, 2).join(', ')} and ${fields.length - 2} more fields` : fields.join(', ');
            return {
                strong: entry.via === 'rule' ? 'A rule' : who,
                rest: `changed ${list}${numbered ? ` of${what}` : ''}${entry.via === 'api' ? ' through the API' : ''}`,
            };
        }
        case 'fired':
            return { strong: entry.ruleName ?? 'A rule', rest: `fired${numbered ? ` on${what}` : ''}` };
        case 'stopped':
            return {
                strong: ((entry.data.chain as string[] | undefined) ?? []).join(' → '),
                rest: `was stopped${numbered ? ` on${what}` : ''}`,
            };
        case 'task_done':
            return { strong: who, rest: `did “${title}”` };
        case 'task_reopened':
            return { strong: who, rest: `opened “${title}” again` };
        case 'task_due':
            return { strong: 'Task fell due:', rest: title };
        case 'task_changed':
            return { strong: who, rest: `changed the task “${title}”` };
        case 'reply':
            return { strong: String(entry.data.from ?? 'Somebody'), rest: `answered${numbered ? ` about${what}` : ''}` };
        case 'unsure':
            return { strong: 'A letter', rest: `may have arrived more than once${numbered && what ? `, about${what}` : ''}` };
        case 'cut_off':
            return { strong: entry.ruleName ?? 'A rule', rest: `took ${String(entry.data.done)} of ${String(entry.data.of)} records` };
        case 'gathered':
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `sent ${String(entry.data.person)} a list of ${counted(Number(entry.data.records), 'record')}`,
            };
        case 'line':
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `${entry.data.byHand ? `did a line now, wanted by ${who}` : 'went on'}${numbered ? ` on${what}` : ''}`,
            };
        case 'struck':
        case 'too_late':
        case 'line_failed': {
            const count = linesOf(entry).length;
            const done = { struck: 'struck out', too_late: 'left out', line_failed: 'could not be done' }[entry.kind];
            const by = entry.via === 'person' && entry.who ? `, by ${who}` : '';
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `${count === 1 ? 'a line' : `${count} lines`} ${done}${numbered ? ` on${what}` : ''}${by}`,
            };
        }
        case 'held':
        case 'resumed':
            return {
                strong: who,
                rest: `${entry.kind === 'held' ? 'held a line of' : 'let a line go on of'} ${entry.ruleName ?? 'a rule'}${numbered ? ` on${what}` : ''}`,
            };
        case 'retimed':
        case 'postponed': {
            const count = linesOf(entry).length;
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `${count === 1 ? 'a pencilled line' : `${count} pencilled lines`} ${entry.kind === 'retimed' ? 'moved' : 'put off'}${numbered ? ` on${what}` : ''}`,
            };
        }
        default:
            return {
                strong: entry.ruleName ?? 'A rule',
                rest: `${ADMINISTRATION[entry.kind] ?? entry.kind}, page ${entry.page}, by ${who}`,
            };
    }
}

function lineSaid(entry: Entry, line: Lines[number]): string {
    const due = line.due && /Z$/.test(line.due) ? moment(line.due) : line.due;
    if (entry.kind === 'retimed') return `${line.said}: ${due ?? 'no date yet'} → ${line.to ?? 'no date yet'}`;
    if (entry.kind === 'postponed') return `${line.said}: ${due} → ${String(entry.data.until)}`;
    return due ? `${line.said}, ${due}` : line.said;
}

function taskChanges(entry: Entry): string {
    const due = entry.data.due as [string | null, string | null] | undefined;
    const person = entry.data.person as [string | null, string | null] | undefined;
    const at = (moment_: string | null) => (moment_ ? moment(moment_) : 'no date');
    return [due ? `Due: ${at(due[0])} → ${at(due[1])}` : '', person ? `${person[0] ?? 'nobody'} → ${person[1] ?? 'nobody'}` : '']
        .filter(Boolean)
        .join(' · ');
}

function reversedSaid(entry: Entry): string {
    const tasks = (entry.data.tasks as string[] | undefined) ?? [];
    const kept = (entry.data.kept as string[] | undefined) ?? [];
    const sent = Number(entry.data.sent ?? 0);
    return [
        entry.data.why ? `“${String(entry.data.why)}”` : '',
        ...entry.changes.map((change) => `${change.label}: ${change.before} → ${change.after}`),
        ...tasks.map((title) => `Task “${title}” cancelled`),
        entry.data.lines ? `${counted(Number(entry.data.lines), 'pencilled line')} struck out` : '',
        kept.length ? `Left as changed since: ${kept.join(', ')}` : '',
        sent ? `${counted(sent, 'message')} stay${sent === 1 ? 's' : ''} sent` : '',
    ]
        .filter(Boolean)
        .join('\n');
}

/** The second line under a headline. */
export function detail(entry: Entry): string {
    if (entry.kind === 'fired') return outcomes(entry).map(outcomeSaid).join('\n');
    if (entry.kind === 'line')
        return [...outcomes(entry).map(outcomeSaid), ...(entry.data.why ? [`“${String(entry.data.why)}”`] : [])].join('\n');
    if (entry.kind === 'reply') return String(entry.data.text ?? '');
    if (entry.kind === 'gathered')
        return `${String(entry.data.subject ?? '')}${entry.data.left ? `, with ${String(entry.data.left)} more than found room` : ''}`;
    if (entry.kind === 'unsure') {
        const end = entry.data.delivered ? 'It has arrived now.' : 'It is given up; try it again if it is missed.';
        return `“${String(entry.data.subject ?? '')}” was handed over ${counted(Number(entry.data.times), 'time')} without an answer. ${end}`;
    }
    if (entry.kind === 'cut_off') return 'A change concerns at most so many records at once. Let the rule watch those records themselves.';
    if (entry.kind === 'task_changed') return taskChanges(entry);
    if (['struck', 'too_late', 'line_failed', 'held', 'resumed', 'retimed', 'postponed'].includes(entry.kind))
        return [String(entry.data.because ?? ''), ...linesOf(entry).map((line) => lineSaid(entry, line))].filter(Boolean).join('\n');
    if (entry.kind === 'changed') return entry.changes.map((change) => `${change.label}: ${change.before} → ${change.after}`).join(' · ');
    if (entry.kind === 'stopped')
        return entry.data.cameRound
            ? 'The last rule had fired in this chain already, so the chain ends here.'
            : 'The chain had grown too long, so it ends here.';
    if (entry.kind === 'reversed') return reversedSaid(entry);
    if (entry.kind === 'comment') return String(entry.data.text ?? '');
    if (entry.kind === 'refused') {
        const of = entry.data.of ? `What was refused: ${String(entry.data.of)}.` : '';
        const again = entry.data.again === false ? 'It is not tried again.' : '';
        return [String(entry.data.message ?? ''), of, again].filter(Boolean).join('\n');
    }
    if (entry.kind === 'ready_again') return String(entry.data.reason ?? '');
    if (entry.kind === 'rules_ordered') return ((entry.data.order as string[] | undefined) ?? []).join(' · ');
    if (entry.kind === 'task_due') return entry.data.person ? `for ${entry.data.person}` : 'for nobody';
    return '';
}
