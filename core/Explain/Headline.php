<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Slip\SlipEventKind;
use VividLedger\Words\Words;

/** An entry as a headline: who or what, and what happened. */
final readonly class Headline
{
    public const ANSWERED = ['created', 'changed', 'deleted', 'comment', 'file', 'task_done', 'reply', 'by_hand', 'hook_brought'];

    private const MOST_FIELDS = 3;

    private string $who;

    private string $rule;

    /** The record, where the headline has to name it; else nothing. */
    private string $what;

    /** @param  bool  $isNumbered  whether the record is named, because the headline does not stand on its account */
    public function __construct(private ReadEntry $entry, private bool $isNumbered)
    {
        $this->who = $entry->who ?? Words::say('Somebody');
        $this->rule = $entry->rule ?? Words::say('A rule');
        // A number never breaks at its hyphen.
        $this->what = $isNumbered && $entry->number !== null ? ' '.str_replace('-', "\u{2011}", $entry->number) : '';
    }

    /** @return array{string, string} what is stressed, and the rest */
    public function said(): array
    {
        $entry = $this->entry;
        $kept = $entry->kept;
        $title = $kept->text('title');
        $by = $entry->who ?? match ($entry->via) {
            'rule' => Words::say('A rule'),
            'slip' => Words::say('A reply slip'),
            'hook' => Words::say('Another system'),
            default => Words::say('Somebody'),
        };
        $byRule = $entry->via === 'rule';
        $api = $entry->via === 'api' ? Words::say(' through the API') : '';
        $it = $this->isNumbered ? $this->what : Words::say(' it');

        $on = $this->about(Words::say(' on'));
        $of = $this->about(Words::say(' of'));
        $about = $this->about(Words::say(' about'));
        $after = $this->about(Words::say(', about'));

        return match ($entry->kind) {
            'created' => $byRule ? [$this->rule, Words::say('made{it}', it: $it)]
                : [$by, Words::say('created{it}{api}', it: $it, api: $api)],
            'deleted' => [$this->who, Words::say('deleted{it}', it: $it)],
            'merged' => [$this->who, Words::say(
                'merged {number}, {title}, into{it}',
                number: $kept->text('number'),
                title: $title,
                it: $it,
            )],
            'restored' => [$this->who, Words::say('brought{it} back', it: $it)],
            'comment' => [$byRule ? $this->rule : $this->who, Words::say('commented{about}', about: $on)],
            'file' => [$by, Words::say('added the file {name}{about}', name: $kept->text('name'), about: $this->about(Words::say(' to')))],
            'by_hand' => [$this->who, Words::say(
                'ran {rule} by hand{about}',
                rule: $entry->rule ?? Words::say('a rule'),
                about: $on,
            )],
            'refused' => [$this->rule, Words::say('refused a save{of} by {who}', of: $of, who: $this->who)],
            'reversed' => [$this->who, Words::say(
                'reversed entry {number}{about}',
                number: $kept->text('of'),
                about: $on,
            )],
            'ready_again' => [$this->rule, Words::say(
                'is ready again{about}{by}',
                about: $this->about(Words::say(' for')),
                by: $entry->via === 'person' ? Words::say(', by {who}', who: $this->who) : '',
            )],
            'rules_ordered' => [$this->who, Words::say('put the rules in another order')],
            'rule_in_set' => [$this->rule, $kept->text('set') === '' ? Words::say(
                'stands in no either/or set any more, by {who}',
                who: $this->who,
            )
                : Words::say('stands in the either/or set “{set}”, by {who}', set: $kept->text('set'), who: $this->who)],
            'changed' => [$byRule
                ? Words::say('A rule')
                : $by, Words::say(
                    'changed {fields}{about}{api}',
                    fields: $this->fields(),
                    about: $of,
                    api: $api,
                )],
            'fired' => [$this->rule, Words::say('fired{about}', about: $on)],
            'stopped' => [implode(' → ', $kept->texts('chain')), Words::say('was stopped{about}', about: $on)],
            'sign_off' => $entry->who === null ? [$this->rule, Words::say(
                'goes on with a sign-off{about}',
                about: $of,
            )]
                : [$this->who, $this->signOff($of)],
            'slip' => $this->slip(),
            'call' => [
                Words::quoted($kept->text('endpoint')),
                CallTold::hasSucceeded($kept) ? Words::say('has answered{about}', about: $about)
                    : Words::say('could not be called{about}', about: $about),
            ],
            'signed_off' => [Words::say(
                'A sign-off{about}',
                about: $of,
            ), $kept->text('text') === '' ? Words::say('has ended') : Words::say('is {text}', text: $kept->text('text'))],
            'task_done' => [$this->who, Words::say('did “{title}”', title: $title)],
            'task_given' => [$this->who, Words::say('gave a task: “{title}”', title: $title)],
            'task_lapsed' => [$this->rule, Words::say('wants “{title}” no more', title: $title)],
            'task_reopened' => [$this->who, Words::say('opened “{title}” again', title: $title)],
            'task_due' => [Words::say('Task fell due:'), $title],
            'task_changed' => [$this->who, Words::say('changed the task “{title}”', title: $title)],
            'reply' => [$kept->text('from') === ''
                ? Words::say('Somebody')
                : $kept->text('from'), Words::say('answered{about}', about: $about)],
            'hook_brought' => [Words::say('Another system'),
                Words::say('posted to “{from}”{about}', from: $kept->text('from'), about: $about)],
            'bounced' => [Words::say('A letter'), Words::say('came back{about}', about: $after)],
            'mail_stopped' => [Words::say('A letter'), Words::say('was not sent{about}', about: $about)],
            'mail_aside' => [Words::say('A mail'), Words::say('is kept, and nothing follows{about}', about: $after)],
            'unsure' => [Words::say('A letter'), Words::say('may have arrived more than once{about}', about: $after)],
            'cut_off' => [$this->rule, Words::say('took {done} of {of} records', done: $kept->text('done'), of: $kept->text('of'))],
            'gathered' => [$this->rule, Words::say(
                'sent {person} a list of {counted}',
                person: $kept->text('person'),
                counted: Words::counted($kept->number('records'), '{count} record|{count} records'),
            )],
            'line' => [$this->rule, $kept->is('byHand')
                ? Words::say('did a line now, wanted by {who}{about}', who: $this->who, about: $on)
                : Words::say('did its next line{about}', about: $on)],
            'struck' => $this->lines(Words::say('struck out')),
            'too_late' => $this->lines(Words::say('left out')),
            'line_failed' => $this->lines(Words::say('could not be done')),
            'person_changed' => [$this->who, Words::say('changed what is kept of {person}', person: $kept->text('person'))],
            'setup_applied' => [$this->who, Words::say('brought in a setup')],
            'company_opened' => [$this->who, Words::say('opened the ledger of {name}', name: $kept->text('name'))],
            'person_invited' => [$this->who, Words::say('invited {person}', person: $kept->text('person'))],
            'person_joined' => [$kept->text('person'), Words::say('came in for the first time')],
            'person_left' => [$kept->text('person'), Words::say('has left; {other} takes over', other: $kept->text('other'))],
            'named_left' => [$this->rule, Words::say(
                'names {person}, who has left; {other} takes over', person: $kept->text('person'), other: $kept->text('other'),
            )],
            'signed_in' => [$this->who, $kept->text('how') === 'link' ? Words::say('signed in by a link') : Words::say('signed in')],
            'signed_out' => [$this->who, in_array($kept->text('person'), ['', $this->who], true) ? Words::say('signed out somewhere else')
                : Words::say('signed {person} out everywhere', person: $kept->text('person'))],
            'password_reset' => [$this->who, Words::say('chose another password by a link')],
            'password_changed' => [$this->who, Words::say('changed the password')],
            'token_made' => [$this->who, Words::say('made the API token “{title}”', title: $title)],
            'token_ended' => [$this->who, Words::say('ended the API token “{title}”', title: $title)],
            'role_added' => [$this->who, Words::say('made the role {title}', title: $title)],
            'role_changed' => [$this->who, Words::say('changed what the role {title} may do', title: $title)],
            'role_removed' => [$this->who, Words::say('removed the role {title}', title: $title)],
            'exported' => [$this->who, Words::say('took {records} {title} out in a file', records: $kept->text('records'), title: $title)],
            'type_added' => [$this->who, Words::say('added the record type {title}', title: $title)],
            'type_changed' => [$this->who, Words::say('changed the record type {title}', title: $title)],
            'field_added' => [$this->who, Words::say('added the field {title}', title: $title)],
            'field_changed' => [$this->who, Words::say('changed the field {title}', title: $title)],
            'field_retired' => [$this->who, Words::say('retired the field {title}', title: $title)],
            'field_back' => [$this->who, Words::say('brought the field {title} back', title: $title)],
            'second_factor_on' => [$this->who, Words::say('asks for a code at signing in')],
            'second_factor_off' => [$this->who, Words::say('took away the second factor of {person}', person: $kept->text('person'))],
            'goes_away' => [$this->who, Words::say('entered an absence of {person}', person: $kept->text('person'))],
            'comes_back' => [$this->who, Words::say('ended an absence of {person}', person: $kept->text('person'))],
            'held_back' => [$this->rule, $this->what === '' ? Words::say('was kept from it by a lock')
                : Words::say('was kept{about} by a lock', about: $this->about(Words::say(' from')))],
            'waits_for_release' => $this->pencilled(Words::say('held until the record is free')),
            'lock_released' => [$this->who, Words::say('released the lock{about}', about: $on)],
            'locked_out' => [$this->who, Words::say('could not change{it}', it: $it)],
            'caught_up' => [$this->rule, Words::say('looks again{about}', about: $this->about(Words::say(' at')))],
            'held' => [$this->who, Words::say(
                'held a line of {rule}{about}',
                rule: $entry->rule ?? Words::say('a rule'),
                about: $on,
            )],
            'resumed' => [$this->who, Words::say(
                'let a line go on of {rule}{about}',
                rule: $entry->rule ?? Words::say('a rule'),
                about: $on,
            )],
            'retimed' => $this->pencilled(Words::say('moved')),
            'postponed' => $this->pencilled(Words::say('put off')),
            default => [$this->rule, Words::say(
                '{done}, page {page}, by {who}',
                done: self::administration($entry->kind),
                page: (int) $entry->page,
                who: $this->who,
            )],
        };
    }

    private static function administration(string $kind): string
    {
        return match ($kind) {
            'rule_in_force' => Words::say('put in force'),
            'rule_paused' => Words::say('paused'),
            'rule_retired' => Words::say('retired'),
            default => $kind,
        };
    }

    /** @return array{string, string} by what happened first on its way */
    private function slip(): array
    {
        $first = $this->entry->kept->rows('happened')[0] ?? new Kept([]);
        $answered = match (SlipEventKind::tryFrom($first->text('kind'))) {
            SlipEventKind::Answered => Words::say('answered a reply slip{about}', about: $this->about(Words::say(' about'))),
            SlipEventKind::Corrected => Words::say('corrected a reply slip{about}', about: $this->about(Words::say(' about'))),
            default => null,
        };
        $who = $this->entry->who ?? ($first->text('to') === '' ? Words::say('Somebody') : $first->text('to'));

        return match (true) {
            $answered !== null => [$who, $answered],
            $this->entry->who !== null => [$this->entry->who, Words::say(
                'saw to a reply slip{about}',
                about: $this->about(Words::say(' about')),
            )],
            default => [$this->rule, Words::say('goes on with a reply slip{about}', about: $this->about(Words::say(' about')))],
        };
    }

    /** What somebody did about a sign-off, by what happened first. */
    private function signOff(string $of): string
    {
        $first = $this->entry->kept->rows('happened')[0] ?? new Kept([]);

        return match (SignOffEventKind::tryFrom($first->text('kind'))) {
            SignOffEventKind::Said => Words::say('answered a sign-off{about}', about: $of),
            SignOffEventKind::HandedOver => Words::say('gave a sign-off to somebody else{about}', about: $of),
            SignOffEventKind::AskedBack => Words::say('asked something before a sign-off{about}', about: $of),
            SignOffEventKind::AnsweredBack => Words::say('answered a question about a sign-off{about}', about: $of),
            SignOffEventKind::RouteChanged => Words::say('changed the route of a sign-off{about}', about: $of),
            SignOffEventKind::Ended => $first->text('status') === SignOffStatus::Withdrawn->value
                ? Words::say('withdrew a sign-off{about}', about: $of) : Words::say('ended a sign-off{about}', about: $of),
            default => Words::say('saw to a sign-off{about}', about: $of),
        };
    }

    /** The record behind a word that leads to it, where the headline names it. */
    private function about(string $word): string
    {
        return $this->what === '' ? '' : "{$word}{$this->what}";
    }

    private function fields(): string
    {
        $labels = array_column($this->entry->changes, 'label');

        return count($labels) <= self::MOST_FIELDS ? implode(', ', $labels)
            : Words::say(
                '{fields} and {more} more fields',
                fields: implode(', ', array_slice($labels, 0, self::MOST_FIELDS - 1)),
                more: count($labels) - self::MOST_FIELDS + 1,
            );
    }

    /** @return array{string, string} */
    private function lines(string $done): array
    {
        $count = count($this->entry->kept->rows('lines'));
        $by = $this->entry->via === 'person' && $this->entry->who !== null ? Words::say(', by {who}', who: $this->entry->who) : '';

        return [$this->rule, Words::counted($count, 'a line|{count} lines')." {$done}".$this->about(Words::say(' on')).$by];
    }

    /** @return array{string, string} */
    private function pencilled(string $done): array
    {
        $count = count($this->entry->kept->rows('lines'));

        return [$this->rule, Words::counted($count, 'a pencilled line|{count} pencilled lines')." {$done}".$this->about(Words::say(' on'))];
    }
}
