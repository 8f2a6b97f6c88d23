<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\SignOff\PassesLock;
use VividLedger\Words\Words;

/** The second line under the headline of an entry. */
final readonly class Detail
{
    /** What is kept of people, by the name it has there. */
    private Kept $kept;

    public function __construct(private ReadEntry $entry)
    {
        $this->kept = $entry->kept;
    }

    public function said(): string
    {
        $kept = $this->kept;

        return match ($this->entry->kind) {
            'fired' => implode("\n", $this->outcomes()),
            'line' => self::lined([
                ...$this->outcomes(), $kept->text('why') === '' ? '' : Words::quoted($kept->text('why')),
                $kept->text('meant') === '' ? ''
                    : Words::say('Meant for {moment}, which quiet hours put off.', moment: $kept->text('meant')),
            ]),
            'reply', 'comment' => $kept->text('text'),
            'gathered' => $kept->text('subject').($kept->has('left') ? Words::say(
                ', with {left} more than found room',
                left: $kept->text('left'),
            ) : ''),
            'bounced' => "{$kept->text('to')}: {$kept->text('why')}".($kept->is('forGood')
                ? "\n".Words::say('No more letters go to this address.')
                : ''),
            'mail_stopped' => self::lined([Words::quoted($kept->text('subject')), $kept->text('why')]),
            'mail_aside' => self::lined([
                "{$kept->text('from')}: “{$kept->text('subject')}”",
                $kept->text('kind') === 'loop' ? Words::say('Too many of this sender within an hour: two robots may '
                    .'be talking.') : Words::say('A robot wrote it.'),
            ]),
            'unsure' => Words::counted(
                $kept->number('times'),
                '“{subject}” was handed over once without an answer.|“{subject}” was handed over {count} times without an answer.',
                subject: $kept->text('subject'),
            ).' '.($kept->is('delivered')
                ? Words::say('It has arrived now.')
                : Words::say('It is given up; try it again if it is missed.')),
            'cut_off' => Words::say('A change concerns at most so many records at once. Let the rule watch those records themselves.'),
            'task_done' => $kept->text('outcome'),
            'task_lapsed' => Words::say($kept->text('because')).'.'.($kept->text('person') === ''
                ? ''
                : "\n".Words::say('{person} need not do it.', person: $kept->text('person'))),
            'merged' => $kept->number('records') === 0 ? ''
                : Words::counted(
                    $kept->number('records'),
                    '{count} record that named it names this one now.|{count} records that named it name this one now.',
                ),
            'task_given' => implode(' · ',
                array_filter([$kept->text('person'), $kept->text('due') === '' ? '' : Words::say('due {due}', due: $kept->text('due'))])),
            'task_changed' => implode(' · ', array_filter([
                $this->pair('due', Words::say('Due: '), Words::say('no date')), $this->pair('person', '', Words::say('nobody'))])),
            'signed_in' => match ($kept->text('how')) {
                'password' => Words::say('With the password.'),
                'code' => Words::say('With the password and a code.'),
                'link' => Words::say('By the link of a letter.'),
                default => '',
            },
            'setup_applied' => implode("\n", $kept->texts('files')),
            'role_added', 'role_changed' => implode("\n", $kept->texts('said')),
            'person_changed', 'type_changed', 'field_changed' => $kept->has('turns') ? Turns::said($kept->rows('turns'))
                // As it was once kept.
                : implode(', ', array_map(Turns::called(...), $kept->texts('what'))),
            'goes_away' => "{$kept->text('from')} – {$kept->text('until')}",
            'held_back' => Words::say('It is locked while a sign-off waits.').' '.($kept->is('again')
                ? Words::say('The rule looks again once it is free.') : Words::say('The rule does not come again.')),
            'locked_out' => Words::say('It is locked while a sign-off waits.'),
            'lock_released' => $kept->text('reason') === '' ? '' : Words::quoted($kept->text('reason')),
            'waits_for_release', 'struck', 'too_late', 'line_failed', 'held', 'resumed', 'retimed', 'postponed' => self::lined([
                Words::say($kept->text('because')), ...array_map($this->line(...), $kept->rows('lines')),
            ]),
            'call' => CallTold::said($kept),
            'slip' => self::lined([...array_map(SlipTold::said(...), $kept->rows('happened')), ...SlipTold::answers($kept)]),
            'sign_off' => implode("\n", array_map(SignOffTold::said(...), $kept->rows('happened'))),
            'changed' => self::lined([
                implode(' · ', $this->changes()), (string) PassesLock::tryFrom($kept->text('passed'))?->said(),
            ]),
            'stopped' => $kept->is('cameRound') ? Words::say('The last rule had fired in this chain already, so the chain ends here.')
                : Words::say('The chain had grown too long, so it ends here.'),
            'reversed' => $this->reversed(),
            'refused' => self::lined([
                $kept->text('message'), $kept->text('of') === '' ? '' : Words::say('What was refused: {of}.', of: $kept->text('of')),
                ($kept->data['again'] ?? null) === false ? Words::say('It is not tried again.') : '',
            ]),
            'ready_again' => $kept->text('reason'),
            'rules_ordered' => implode(' · ', $kept->texts('order')),
            'task_due' => Words::say('for {person}', person: $kept->text('person') === '' ? Words::say('nobody') : $kept->text('person')),
            default => '',
        };
    }

    /** @return list<string> */
    private function outcomes(): array
    {
        return array_map(OutcomeSentence::of(...), $this->kept->rows('did'));
    }

    /** @return list<string> */
    private function changes(): array
    {
        return array_map(
            static fn (array $change): string => "{$change['label']}: {$change['before']} → {$change['after']}",
            $this->entry->changes,
        );
    }

    private function line(Kept $line): string
    {
        [$said, $due, $to] = [$line->text('said'), $line->text('due'), $line->text('to')];

        return match ($this->entry->kind) {
            'retimed' => "{$said}: ".($due === '' ? Words::say('no date yet') : $due).' → '.($to === '' ? Words::say('no date yet') : $to),
            'postponed' => "{$said}: {$due} → {$this->kept->text('until')}",
            default => $due === '' ? $said : "{$said}, {$due}",
        };
    }

    private function pair(string $name, string $before, string $nothing): string
    {
        if (! $this->kept->has($name)) {
            return '';
        }
        [$was, $is] = $this->kept->texts($name) + ['', ''];

        return $before.($was === '' ? $nothing : $was).' → '.($is === '' ? $nothing : $is);
    }

    private function reversed(): string
    {
        $kept = $this->kept;
        $sent = $kept->number('sent');

        return self::lined([
            $kept->text('why') === '' ? '' : Words::quoted($kept->text('why')),
            ...$this->changes(),
            ...array_map(static fn (string $title): string => Words::say('Task “{title}” cancelled', title: $title), $kept->texts('tasks')),
            $kept->number('lines') === 0 ? '' : Words::counted(
                $kept->number('lines'),
                '{count} pencilled line struck out|{count} pencilled lines struck out',
            ),
            $kept->number('signOffs') === 0 ? '' : Words::counted(
                $kept->number('signOffs'),
                '{count} sign-off withdrawn|{count} sign-offs withdrawn',
            ),
            $kept->number('slips') === 0 ? '' : Words::counted(
                $kept->number('slips'),
                '{count} reply slip withdrawn|{count} reply slips withdrawn',
            ),
            $kept->texts('kept') === [] ? '' : Words::say('Left as changed since: {kept}', kept: implode(', ', $kept->texts('kept'))),
            $sent === 0 ? '' : Words::counted($sent, '{count} message stays sent|{count} messages stay sent'),
        ]);
    }

    /** @param  list<string>  $parts */
    private static function lined(array $parts): string
    {
        return implode("\n", array_filter($parts, static fn (string $part): bool => $part !== ''));
    }
}
