<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Explain\SlipTold;
use VividLedger\Facts\View;
use VividLedger\Record\Display;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Record\Record;
use VividLedger\Rule\Line\SendsSlip;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Schema\Schema;
use VividLedger\Slip\Answers;
use VividLedger\Slip\BadAnswers;
use VividLedger\Slip\Reach;
use VividLedger\Slip\SlipClerk;
use VividLedger\Slip\SlipMoved;
use VividLedger\Slip\SlipWay;

/** Leads the slips of a rehearsal: nobody answers unless that is supposed, so they are reminded, passed on and run out as they would. */
final readonly class PaperPost implements Tends
{
    public function __construct(private Play $play, private Schema $schema, private \DateTimeZone $zone)
    {
    }

    public function next(): ?array
    {
        $next = null;
        foreach ($this->play->paper->runs->slips->all as $one) {
            $at = $this->clerk($one)?->wakesAt($one->slip);
            if ($at !== null && ($next === null || $at < $next[0])) {
                $next = [$at, fn () => $this->tend($one)];
            }
        }

        return $next;
    }

    public function tellWithdrawn(): void
    {
        foreach ($this->play->paper->runs->slips->withdrawn() as [$one, $moved]) {
            $record = $this->record($one) ?? $one->sent->record;
            $this->play->note('slip', $record, $one->rule, SlipTold::of($moved->events), $one->entry, false);
        }
    }

    /**
     * Whoever's turn it is answers.
     *
     * @param  array<array-key, mixed>  $raw  by the place of the question
     */
    public function answer(PaperSlip $one, array $raw, ?int $actor): void
    {
        $record = $this->record($one);
        $clerk = $this->clerk($one);
        if ($record === null || $clerk === null || ! $one->slip->isOpen()) {
            return;
        }
        try {
            $answers = Answers::checked($one->sent->form->questions, $raw);
        } catch (BadAnswers $bad) {
            $this->play->note('refused', $record, $one->rule, ['message' => $bad->getMessage()], $one->entry, true);

            return;
        }
        $moved = $clerk->answered($one->slip, $answers->chosen());
        $one->slip = $moved->slip;
        $one->answers = $answers->said(new Display($this->play->paper, $this->zone));
        $entry = $this->play->note('slip', $record, $one->rule, SlipTold::of($moved->events, $one->answers), $one->entry, true);
        foreach ($answers->fields() as $reference => $values) {
            $id = $reference === '' ? null : $record->value($reference);
            $target = $reference === '' ? $this->record($one) : $this->play->paper->record(
                $this->schema->type($record->type)?->field($reference)->target ?? '',
                is_int($id) ? $id : 0,
            );
            if ($target !== null) {
                $this->play->save($target, $target->id, $target->type, $values, $actor, true);
            }
        }
        $event = new Event(EventKind::SlipAnswered, "slip:{$one->number}", SlipTold::inOne($one->answers));
        $this->play->recordEvent($this->record($one) ?? $record, $event, $actor, true, $entry, $one->rule);
    }

    private function tend(PaperSlip $one): void
    {
        $moved = $this->clerk($one)?->tend($one->slip);
        $record = $this->record($one);
        if ($moved === null || $record === null) {
            return;
        }
        if (! $moved->isOvertaken) {
            $one->slip = $moved->slip;
        }
        if ($moved->events !== []) {
            $this->told($one, $moved, $record);
        }
    }

    private function told(PaperSlip $one, SlipMoved $moved, Record $record): void
    {
        $entry = $this->play->note('slip', $record, $one->rule, SlipTold::of($moved->events), $one->entry, false);
        if (! $moved->slip->isOpen()) {
            $event = new Event(EventKind::SlipOver, "slip:{$one->number}", $moved->slip->status->said());
            $this->play->recordEvent($record, $event, null, false, $entry, $one->rule);
        }
    }

    private function record(PaperSlip $one): ?Record
    {
        return $this->play->paper->record($one->sent->record->type, $one->sent->record->id);
    }

    private function clerk(PaperSlip $one): ?SlipClerk
    {
        $line = $one->rule->line($one->sent->place)?->bare();
        $record = $this->record($one);

        return $line instanceof SendsSlip && $record !== null
            ? new SlipClerk($line->plan(), new View($record, $this->play->paper), $this->zone, $this->way($line, $record, $one)) : null;
    }

    private function way(SendsSlip $line, Record $record, PaperSlip $one): SlipWay
    {
        return new class($this->play, $line, $record, $one, $this->schema, $this->zone) implements SlipWay
        {
            public function __construct(
                private readonly Play $play,
                private readonly SendsSlip $line,
                private readonly Record $record,
                private readonly PaperSlip $one,
                private readonly Schema $schema,
                private readonly \DateTimeZone $zone,
            ) {
            }

            public function turnTo(int $candidate): ?Reach
            {
                $field = $this->line->plan()->next?->field() ?? throw new \LogicException('There is no list to go along.');
                $now = $this->play->paper->record($this->record->type, $this->record->id) ?? $this->record;
                $set = $this->play->correct($now, [$field->name => $candidate]);

                return ! $this->one->slip->isOpen() ? null
                    : $this->line->reach(ActionContext::looking($set, $this->play->paper, $this->schema, $this->zone));
            }
        };
    }
}
