<?php

declare(strict_types=1);

namespace VividLedger\Explain;

use VividLedger\SignOff\SignOffEventKind;
use VividLedger\Slip\SlipEventKind;

/** An entry as a headline: who or what, and what happened. */
final readonly class Headline
{
    public const ANSWERED = ['created', 'changed', 'deleted', 'comment', 'file', 'task_done', 'reply', 'by_hand', 'hook_brought'];

    private const ADMINISTRATION = ['rule_in_force' => 'put in force', 'rule_paused' => 'paused', 'rule_retired' => 'retired'];

    private const MOST_FIELDS = 3;

    /** What did it where no person did. */
    private const BY = ['rule' => 'A rule', 'slip' => 'A reply slip', 'hook' => 'Another system'];

    private string $who;

    private string $rule;

    /** The record, where the headline has to name it; else nothing. */
    private string $what;

    /** @param  bool  $isNumbered  whether the record is named, because the headline does not stand on its account */
    public function __construct(private ReadEntry $entry, private bool $isNumbered)
    {
        $this->who = $entry->who ?? 'Somebody';
        $this->rule = $entry->rule ?? 'A rule';
        // A number never breaks at its hyphen.
        $this->what = $isNumbered && $entry->number !== null ? ' '.str_replace('-', "\u{2011}", $entry->number) : '';
    }

    /** @return array{string, string} what is stressed, and the rest */
    public function said(): array
    {
        $entry = $this->entry;
        $kept = $entry->kept;
        $title = $kept->text('title');
        $by = $entry->who ?? self::BY[$entry->via] ?? 'Somebody';
        $byRule = $entry->via === 'rule';
        $api = $entry->via === 'api' ? ' through the API' : '';
        $it = $this->isNumbered ? $this->what : ' it';

        return match ($entry->kind) {
            'created' => $byRule ? ['A rule', 'made'.$it] : [$by, "created{$it}{$api}"],
            'deleted' => [$this->who, "deleted{$it}"],
            'merged' => [$this->who, "merged {$kept->text('number')}, {$title}, into{$it}"],
            'restored' => [$this->who, "brought{$it} back"],
            'comment' => [$byRule ? 'A rule' : $this->who, 'commented'.$this->about(' on')],
            'file' => [$by, "added the file {$kept->text('name')}".$this->about(' to')],
            'by_hand' => [$this->who, 'ran '.($entry->rule ?? 'a rule').' by hand'.$this->about(' on')],
            'refused' => [$this->rule, 'refused a save'.($this->what === '' ? '' : " of{$this->what}")." by {$this->who}"],
            'reversed' => [$this->who, "reversed entry {$kept->text('of')}".($this->what === '' ? '' : " on{$this->what}")],
            'ready_again' => [$this->rule, 'is ready again'.$this->about(' for').($entry->via === 'person' ? ", by {$this->who}" : '')],
            'rules_ordered' => [$this->who, 'put the rules in another order'],
            'rule_in_set' => [$this->rule, $kept->text('set') === '' ? "stands in no either/or set any more, by {$this->who}"
                : "stands in the either/or set “{$kept->text('set')}”, by {$this->who}"],
            'changed' => [$byRule ? 'A rule' : $by, "changed {$this->fields()}".$this->about(' of').$api],
            'fired' => [$this->rule, 'fired'.$this->about(' on')],
            'stopped' => [implode(' → ', $kept->texts('chain')), 'was stopped'.$this->about(' on')],
            'sign_off' => $entry->who === null ? [$this->rule, 'goes on with a sign-off'.$this->about(' of')]
                : [$this->who, ($this->isSaid() ? 'answered' : 'withdrew').' a sign-off'.$this->about(' of')],
            'slip' => $this->slip(),
            'call' => [
                "“{$kept->text('endpoint')}”",
                (CallTold::hasSucceeded($kept) ? 'has answered' : 'could not be called').$this->about(' about'),
            ],
            'signed_off' => ['A sign-off'.$this->about(' of'), $kept->text('text') === '' ? 'has ended' : "is {$kept->text('text')}"],
            'task_done' => [$this->who, "did “{$title}”"],
            'task_given' => [$this->who, "gave a task: “{$title}”"],
            'task_lapsed' => [$this->rule, "wants “{$title}” no more"],
            'task_reopened' => [$this->who, "opened “{$title}” again"],
            'task_due' => ['Task fell due:', $title],
            'task_changed' => [$this->who, "changed the task “{$title}”"],
            'reply' => [$kept->text('from') === '' ? 'Somebody' : $kept->text('from'), 'answered'.$this->about(' about')],
            'hook_brought' => ['Another system', "posted to “{$kept->text('from')}”".$this->about(' about')],
            'bounced' => ['A letter', 'came back'.$this->about(', about')],
            'mail_stopped' => ['A letter', 'was not sent'.$this->about(' about')],
            'mail_aside' => ['A mail', 'is kept, and nothing follows'.($this->what === '' ? '' : ", about{$this->what}")],
            'unsure' => ['A letter', 'may have arrived more than once'.($this->what === '' ? '' : ", about{$this->what}")],
            'cut_off' => [$this->rule, "took {$kept->text('done')} of {$kept->text('of')} records"],
            'gathered' => [$this->rule, "sent {$kept->text('person')} a list of ".self::counted($kept->number('records'), 'record')],
            'line' => [$this->rule, ($kept->is('byHand') ? "did a line now, wanted by {$this->who}" : 'went on').$this->about(' on')],
            'struck' => $this->lines('struck out'),
            'too_late' => $this->lines('left out'),
            'line_failed' => $this->lines('could not be done'),
            'person_changed' => [$this->who, "changed what is kept of {$kept->text('person')}"],
            'setup_applied' => [$this->who, 'brought in a setup'],
            'company_opened' => [$this->who, "opened the ledger of {$kept->text('name')}"],
            'person_invited' => [$this->who, "invited {$kept->text('person')}"],
            'person_joined' => [$kept->text('person'), 'came in for the first time'],
            'person_left' => [$kept->text('person'), "has left; {$kept->text('other')} takes over"],
            'signed_in' => [$this->who, 'signed in'.($kept->text('how') === 'link' ? ' by a link' : '')],
            'signed_out' => [$this->who, in_array($kept->text('person'), ['', $this->who], true) ? 'signed out somewhere else'
                : "signed {$kept->text('person')} out everywhere"],
            'password_reset' => [$this->who, 'chose another password by a link'],
            'password_changed' => [$this->who, 'changed the password'],
            'token_made' => [$this->who, "made the API token “{$title}”"],
            'token_ended' => [$this->who, "ended the API token “{$title}”"],
            'role_added' => [$this->who, "made the role {$title}"],
            'role_changed' => [$this->who, "changed what the role {$title} may do"],
            'role_removed' => [$this->who, "removed the role {$title}"],
            'exported' => [$this->who, "took {$kept->text('records')} {$title} out in a file"],
            'type_added' => [$this->who, "added the record type {$title}"],
            'type_changed' => [$this->who, "changed the record type {$title}"],
            'field_added' => [$this->who, "added the field {$title}"],
            'field_changed' => [$this->who, "changed the field {$title}"],
            'field_retired' => [$this->who, "retired the field {$title}"],
            'field_back' => [$this->who, "brought the field {$title} back"],
            'second_factor_on' => [$this->who, 'asks for a code at signing in'],
            'second_factor_off' => [$this->who, "took away the second factor of {$kept->text('person')}"],
            'goes_away' => [$this->who, "entered an absence of {$kept->text('person')}"],
            'comes_back' => [$this->who, "ended an absence of {$kept->text('person')}"],
            'held_back' => [$this->rule, 'was kept'.$this->about(' from').($this->what === '' ? ' from it' : '').' by a lock'],
            'waits_for_release' => $this->pencilled('held until the record is free'),
            'lock_released' => [$this->who, 'released the lock'.$this->about(' on')],
            'locked_out' => [$this->who, "could not change{$it}"],
            'caught_up' => [$this->rule, 'looks again'.$this->about(' at')],
            'held' => [$this->who, 'held a line of '.($entry->rule ?? 'a rule').$this->about(' on')],
            'resumed' => [$this->who, 'let a line go on of '.($entry->rule ?? 'a rule').$this->about(' on')],
            'retimed' => $this->pencilled('moved'),
            'postponed' => $this->pencilled('put off'),
            default => [$this->rule, (self::ADMINISTRATION[$entry->kind] ?? $entry->kind).", page {$entry->page}, by {$this->who}"],
        };
    }

    /** "3 records". */
    public static function counted(int $count, string $what): string
    {
        return number_format($count)." {$what}".($count === 1 ? '' : 's');
    }

    /** @return array{string, string} by what happened first on its way */
    private function slip(): array
    {
        $first = $this->entry->kept->rows('happened')[0] ?? new Kept([]);
        $answered = match (SlipEventKind::tryFrom($first->text('kind'))) {
            SlipEventKind::Answered => 'answered a reply slip',
            SlipEventKind::Corrected => 'corrected a reply slip',
            default => null,
        };
        $who = $this->entry->who ?? ($first->text('to') === '' ? 'Somebody' : $first->text('to'));

        return match (true) {
            $answered !== null => [$who, $answered.$this->about(' about')],
            $this->entry->who !== null => [$this->entry->who, 'saw to a reply slip'.$this->about(' about')],
            default => [$this->rule, 'goes on with a reply slip'.$this->about(' about')],
        };
    }

    /** Whether somebody said yes or no to a sign-off. */
    private function isSaid(): bool
    {
        return ($this->entry->kept->rows('happened')[0] ?? null)?->text('kind') === SignOffEventKind::Said->value;
    }

    /** The record behind a word that leads to it, where the headline names it. */
    private function about(string $word): string
    {
        return $this->isNumbered ? "{$word}{$this->what}" : '';
    }

    private function fields(): string
    {
        $labels = array_column($this->entry->changes, 'label');

        return count($labels) <= self::MOST_FIELDS ? implode(', ', $labels)
            : implode(', ', array_slice($labels, 0, self::MOST_FIELDS - 1)).' and '.(count($labels) - self::MOST_FIELDS + 1).' more fields';
    }

    /** @return array{string, string} */
    private function lines(string $done): array
    {
        $count = count($this->entry->kept->rows('lines'));
        $by = $this->entry->via === 'person' && $this->entry->who !== null ? ", by {$this->entry->who}" : '';

        return [$this->rule, ($count === 1 ? 'a line' : "{$count} lines")." {$done}".$this->about(' on').$by];
    }

    /** @return array{string, string} */
    private function pencilled(string $done): array
    {
        $count = count($this->entry->kept->rows('lines'));

        return [$this->rule, ($count === 1 ? 'a pencilled line' : "{$count} pencilled lines")." {$done}".$this->about(' on')];
    }
}
