<?php

declare(strict_types=1);

namespace VividLedger\Rehearse;

use VividLedger\Explain\SignOffTold;
use VividLedger\Facts\View;
use VividLedger\Record\Event;
use VividLedger\Record\EventKind;
use VividLedger\Rule\Line\AsksSignOff;
use VividLedger\SignOff\Answer;
use VividLedger\SignOff\Clerk;
use VividLedger\SignOff\Hold;
use VividLedger\SignOff\Moved;
use VividLedger\SignOff\SeatState;
use VividLedger\SignOff\SignOffEvent;
use VividLedger\SignOff\SignOffEventKind;
use VividLedger\SignOff\SignOffStatus;

/** Leads the sign-offs of a rehearsal: nobody answers unless that is supposed, and time runs out as it would. */
final readonly class PaperDesk implements Tends
{
    public function __construct(private Play $play, private \DateTimeZone $zone)
    {
    }

    public function next(): ?array
    {
        $next = null;
        foreach ($this->play->paper->runs->signOffs->all as $one) {
            $at = $this->clerk($one)?->wakesAt($one->signOff);
            if ($at !== null && ($next === null || $at < $next[0])) {
                $next = [$at, fn () => $this->tend($one)];
            }
        }

        return $next;
    }

    private function tend(PaperSignOff $one): void
    {
        $moved = $this->clerk($one)?->tend($one->signOff);
        if ($moved !== null) {
            $this->take($one, $moved);
        }
    }

    /** Whoever is asked first says the same, and whoever is asked next in their place does too, until it has ended. */
    public function answer(PaperSignOff $one, Answer $answer, string $comment): void
    {
        $clerk = $this->clerk($one);
        while ($clerk !== null && ($seat = $one->signOff->ofStep(SeatState::Waiting)[0] ?? null) !== null) {
            $this->take($one, $clerk->answer($one->signOff, $seat->person, $answer, $comment), $seat->person, true);
        }
    }

    private function take(PaperSignOff $one, Moved $moved, ?int $actor = null, bool $isWhatIf = false): void
    {
        $before = count($one->signOff->yes());
        $one->signOff = $moved->signOff;
        $record = $this->play->paper->record($one->asked->record->type, $one->asked->record->id);
        if ($moved->events === [] || $record === null) {
            return;
        }
        $number = $this->play->note('sign_off', $record, $one->rule, SignOffTold::of($moved->events), $one->entry, $isWhatIf);
        if (! $moved->signOff->isOpen()) {
            $event = new Event(EventKind::SignedOff, "sign_off:{$one->number}", $moved->signOff->status->said());
            $this->play->recordEvent($record, $event, $actor, $isWhatIf, $number, $one->rule);
            $this->release($one, $number);
        } elseif (self::hasAgreedStep($moved)) {
            $event = new Event(EventKind::StepSigned, "sign_off:{$one->number}:{$moved->signOff->step}");
            $this->play->recordEvent($record, $event, $actor, $isWhatIf, $number, $one->rule);
        } elseif ($one->rule->hearsEachYes($one->asked->key) && ($yes = count($moved->signOff->yes())) > $before) {
            $event = new Event(EventKind::SeatSigned, "sign_off:{$one->number}:yes:{$yes}");
            $this->play->recordEvent($record, $event, $actor, $isWhatIf, $number, $one->rule);
        }
    }

    public function tellWithdrawn(): void
    {
        foreach ($this->play->paper->runs->signOffs->withdrawn() as $one) {
            $record = $this->play->paper->record($one->asked->record->type, $one->asked->record->id) ?? $one->asked->record;
            $told = SignOffTold::of([new SignOffEvent(
                SignOffEventKind::Ended,
                $one->signOff->step,
                status: SignOffStatus::Withdrawn,
            )]);
            $this->release($one, $this->play->note('sign_off', $record, $one->rule, $told, $one->entry, false));
        }
    }

    /** The record is free: lines that waited are due, and rules that were held back answer what they could not. */
    private function release(PaperSignOff $one, int $entry): void
    {
        if ($one->asked->hold === Hold::Nothing) {
            return;
        }
        $this->play->paper->runs->release($one->asked->record->type, $one->asked->record->id);
        foreach ($this->play->paper->runs->signOffs->release($one) as $held) {
            $this->play->answerAgain($held, $entry);
        }
    }

    /** Whether a step was agreed to without that being the end. */
    private static function hasAgreedStep(Moved $moved): bool
    {
        foreach ($moved->events as $event) {
            if ($event->kind === SignOffEventKind::StepAgreed) {
                return true;
            }
        }

        return false;
    }

    private function clerk(PaperSignOff $one): ?Clerk
    {
        $line = $one->rule->line($one->asked->place)?->bare();
        $record = $this->play->paper->record($one->asked->record->type, $one->asked->record->id);

        return $line instanceof AsksSignOff && $record !== null
            ? new Clerk($line->route(), new View($record, $this->play->paper), $this->zone) : null;
    }
}
