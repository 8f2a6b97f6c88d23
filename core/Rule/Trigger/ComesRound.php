<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\People\PersonExpressions;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Record\EventKind;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Always;
use VividLedger\Shape\Slot\Code;
use VividLedger\Shape\Slot\TimeOfDay;
use VividLedger\Shape\WordRole;
use VividLedger\Time\InvalidTimetable;
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
            ->says("{subject} is looked at {rrule} at {time} from {from}{$rest}")->orSaid(
                "[{subject} is looked at |]{rrule} at {time}[,] (from|starting|starting on|beginning|as of) {from}{$rest}",
            )->slot('subject', new Subject)->slot('byHand', new Always)->slot('rrule', new RoundSlot)->slot('time', new TimeOfDay)
            ->slot('from', new Code('[0-9]{4}-[0-9]{2}-[0-9]{2}', 'a day, such as 2026-12-01'))
            ->slot('workingDays', new Always)->slot('per', new PersonSlot)->slot('clock', new Always('person'));
    }

    public static function read(Context $context, Node $node): ?self
    {
        $context->word('is looked at', WordRole::Value, $node->at, Triggers::chooser($context, $node));
        try {
            $timetable = Timetable::of(
                $node->child('rrule')->text() ?? '',
                $node->child('time')->text() ?? '',
                $node->child('from')->text() ?? '',
                $node->child('workingDays')->raw === true,
            );
        } catch (InvalidTimetable $invalid) {
            $code = $node->child('from')->isMissing() ? 'missing' : 'wrong_timetable';

            return $context->gap('choose when', $node->at, Editor::timetable(), $code, $invalid->getMessage());
        }
        $context->word($timetable->said(), WordRole::Value, $node->at, Editor::timetable());
        $per = $node->child('per');
        $offers = static fn (): array => [
            new Offer('one by one', null),
            ...array_map(
                static fn (Offer $offer): Offer => new Offer("together for each, by {$offer->label}", $offer->value, 'Together'),
                array_values(array_filter(
                    PersonExpressions::offers($context),
                    static fn (Offer $offer): bool => is_array($offer->value) && in_array(
                        $offer->value['kind'] ?? '',
                        ['owner', 'creator', 'in_field', 'manager'],
                        true,
                    ) && $offer->group !== 'Teams',
                )),
            ),
        ];
        if ($per->isMissing()) {
            $context->choice('one by one', WordRole::Value, $per->at, $offers);
            if (! $node->child('clock')->isMissing()) {
                return $context->problem(
                    $node->child('clock')->at,
                    'wrong_type',
                    'The clock of each person goes with lists that are put together for a person.',
                );
            }

            return new self($context->type->name, $timetable, null);
        }
        $person = PersonExpressions::read($context, $per);
        if ($person === null) {
            return $context->gap(
                'choose for whom', $per->at, Editor::choose('For whom', $offers), 'missing', 'Choose whose records are put together.',
            );
        }
        $context->choice("together, for {$person->wording()} of each", WordRole::Person, $per->at, $offers);

        $clock = $node->child('clock');
        $clocks = static fn (): array => [new Offer('by each one’s own clock and calendar', 'person'), new Offer('by the company’s', null)];
        if (! $clock->isMissing() && $clock->text() !== 'person') {
            return $context->gap(
                $clock->text() ?? '?',
                $clock->at,
                Editor::choose('By whose clock', $clocks),
                'wrong_type',
                'Time is told by the company’s clock, or by each person’s own.',
            );
        }
        $clock->isMissing()
            ? $context->more('+ by their own clock', $clock->at, Editor::choose('By whose clock', $clocks))
            : $context->choice(', by each one’s own clock', WordRole::Value, $clock->at, $clocks);

        return new self($context->type->name, $timetable, $person, ! $clock->isMissing());
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
