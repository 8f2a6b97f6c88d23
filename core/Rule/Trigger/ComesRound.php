<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\People\Who;
use VividLedger\Record\EventKind;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\Code;
use VividLedger\Shape\Slot\TimeOfDay;
use VividLedger\Time\Timetable;

/** A timetable comes round, for every matching record by itself, or for all of a person's records together. */
final readonly class ComesRound extends Swept implements KeepsTimetable
{
    private function __construct(
        string $type,
        private Timetable $timetable,
        private ?Who $per,
        private bool $ownClock = false,
    ) {
        parent::__construct($type);
    }

    public static function kind(): string
    {
        return 'timetable';
    }

    public static function label(): string
    {
        return 'is looked at by a timetable';
    }

    public static function event(): EventKind
    {
        return EventKind::CameRound;
    }

    public static function shape(): Shape
    {
        $rest = '[, on working days{workingDays}][, together for each, by {per}[, by their own clock{clock}]][, or by hand{byHand}]';

        return Shape::of(self::kind())->starts(['rrule' => 'FREQ=DAILY', 'time' => '08:00', 'workingDays' => true])
            ->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->shows('is looked at {table} {per}[, {clock}]')
            ->says("{subject} is looked at {rrule} at {time} from {from}{$rest}")->orSaid(
                "[{subject} is looked at |]{rrule} at {time}[,] (from|starting|starting on|beginning|as of) {from}{$rest}",
            )->slot('subject', new Subject)->slot('byHand', new Always)->slot('rrule', new RoundSlot)->slot('time', new TimeOfDay)
            ->slot('from', new Code('[0-9]{4}-[0-9]{2}-[0-9]{2}', 'a day, such as 2026-12-01'))
            ->slot('workingDays', new Always)->slot('per', new GatheredFor)->slot('clock', new OwnClock)
            ->slot('table', new TimetableShown);
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self(
            $context->type->name,
            $read->the('table', Timetable::class),
            $read->any('per', Who::class),
            $read->flag('clock'),
        );
    }

    public function wanted(): string
    {
        return "is looked at {$this->timetable->said()}";
    }

    public function occasion(\DateTimeImmutable $moment): string
    {
        return 'round:'.gmdate('Y-m-d\TH:i', $moment->getTimestamp());
    }

    public function timetable(): Timetable
    {
        return $this->timetable;
    }

    public function per(): ?Who
    {
        return $this->per;
    }

    public function isByOwnClock(): bool
    {
        return $this->ownClock;
    }

    public function moments(Ahead $ahead): array
    {
        return $this->per !== null ? [] : array_map(
            fn (\DateTimeImmutable $at): array => [$at, $this->occasion($at)],
            $this->timetable->between($ahead->from, $ahead->until, $ahead->zone, $ahead->facts->calendar(null)),
        );
    }

    public function opening(Proposal $proposal): Opening
    {
        $rounds = $this->timetable->between($proposal->now, $proposal->until, $proposal->zone, $proposal->facts->calendar(null));

        return new Opening(OpeningKind::Time, $rounds[0] ?? $proposal->now, set: $proposal->set);
    }
}
