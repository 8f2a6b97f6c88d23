<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Explain\EntryWords;
use VividLedger\Explain\Kept;
use VividLedger\Explain\SignOffTold;
use VividLedger\Record\Display;

/** A rehearsal as lines of text, one for each thing that happened: what a proof keeps and compares. */
final readonly class Outline
{
    public function __construct(private EntryWords $words, private Display $display)
    {
    }

    /** @return list<string> */
    public function of(Played $played): array
    {
        $lines = [];
        foreach ($played->entries as $entry) {
            $begin = "{$this->display->moment($entry->at)} · ".($entry->told->rule->name ?? ($entry->isWhatIf ? 'What if' : 'It begins'));
            foreach ($this->parts($entry) as $part) {
                $lines[] = "{$begin}: {$part}";
            }
        }
        foreach ($played->left as $line) {
            $lines[] = 'In the end one line still waits'.($line->due === null ? '' : ", for {$this->display->moment($line->due)}").'.';
        }
        if ($played->why !== null && $played->why->reason !== \VividLedger\Engine\Reason::Fires) {
            // Only that: why it is so may be worded anew without anything having changed.
            $lines[] = 'The rule does not fire.';
        }

        return $lines;
    }

    /** @return list<string> */
    private function parts(PaperEntry $entry): array
    {
        $told = $entry->told;
        $kept = new Kept($this->words->data($told->data));
        $changes = implode(', ', array_map(
            static fn (array $change): string => "{$change['label']} {$change['before']} → {$change['after']}",
            $this->words->changes($told->record->type, $told->changes),
        ));
        $lines = implode(', ', array_map(static fn (Kept $line): string => "‘{$line->text('said')}’", $kept->rows('lines')));
        $because = $kept->text('because');

        return match ($told->kind) {
            'fired', 'line' => array_map(self::did(...), $kept->rows('did')) ?: ['nothing to do'],
            'created' => ["created, {$changes}"],
            'changed' => [$changes === '' ? 'nothing changed' : $changes],
            'struck' => ["struck out {$lines}, {$because}"],
            'too_late' => ["left out {$lines}, {$because}"],
            'retimed' => ["moved {$lines}, {$because}"],
            'postponed' => ["put off {$lines}, {$because}"],
            'held_back' => ['kept from the record by a lock'],
            'waits_for_release' => ["held {$lines} until the record is free"],
            'locked_out' => ['the record is locked, so nothing changed'],
            'stopped' => ['the chain of rules was stopped'],
            'sign_off' => array_map(SignOffTold::said(...), $kept->rows('happened')),
            'refused' => ["refused: {$kept->text('message')}"],
            default => [str_replace('_', ' ', $told->kind).($kept->text('text') === '' ? '' : " “{$kept->text('text')}”")],
        };
    }

    /** @param  Kept  $did  in words */
    private static function did(Kept $did): string
    {
        $on = $did->text('on') === '' ? '' : " on {$did->text('on')}";

        return match ($did->text('kind')) {
            'set' => "{$did->text('label')}{$on} set to {$did->text('after')}",
            'task' => "task “{$did->text('title')}” to ".($did->text('person') === '' ? 'nobody' : $did->text('person'))
                .($did->text('due') === '' ? '' : ", due {$did->text('due')}"),
            'message' => "message “{$did->text('subject')}” to {$did->text('to')}",
            'created' => "made {$did->text('record')}",
            'sign_off' => $did->texts('asked') === [] ? "sign-off {$did->text('status')}"
                : 'sign-off asked of '.implode(' and ', $did->texts('asked')),
            'comment' => "commented{$on} “{$did->text('text')}”",
            'follow' => $did->text('person').($did->is('follows') ? ' follows' : ' follows no more'),
            default => "{$did->text('label')}: {$did->text('why')}",
        };
    }
}
