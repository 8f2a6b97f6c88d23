<?php

declare(strict_types=1);

namespace VividLedger\Condition\Given;

use VividLedger\Condition\QueryWriter;
use VividLedger\Facts\View;
use VividLedger\Record\Value;
use VividLedger\Schema\Field;
use VividLedger\Schema\FieldType;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\SignedLength;
use VividLedger\Shape\TimeForm;
use VividLedger\Shape\TimeReader;
use VividLedger\Shape\WordRole;
use VividLedger\Time\Amount;
use VividLedger\Time\OutOfTime;
use VividLedger\Time\WorkingCalendar;
use VividLedger\Words\Words;

/** A date that moves with the clock: today, 7 days from today, 2 hours ago. */
final readonly class GivenMoment implements Given
{
    public function __construct(
        private Amount $amount,
        private \DateTimeZone $zone,
        private ?WorkingCalendar $calendar = null,
    ) {
    }

    public static function kind(): string
    {
        return 'moment';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('{base}', ['amount' => 0, 'unit' => 'day'])->says('{before} ago')->says('{after} from {base}')
            ->orSaid('in {after}', '{after} (away|ahead|later|hence)', '{before} (earlier|back|before {base})', '{after} after {base}')
            ->orSaidWith(['amount' => 1, 'unit' => 'day'], 'tomorrow')->orSaidWith(['amount' => -1, 'unit' => 'day'], 'yesterday')
            ->orSaidWith(['amount' => 0, 'unit' => 'day'], '(now|today|today’s date|the current date|the current time|the present)')
            ->slot('base', new MomentBase)->slot('before', new SignedLength(-1))->slot('after', new SignedLength(1));
    }

    public static function fits(Field $field): bool
    {
        return $field->type->isMoment();
    }

    public static function offers(Context $context, Node $node, Field $field): array
    {
        $now = $field->type === FieldType::Date ? 'today' : 'now';

        return [
            new Offer($now, ['kind' => self::kind(), 'amount' => 0, 'unit' => 'day'], 'Or'),
            new Offer("a time before or after {$now}…", ['kind' => self::kind()], 'Or', isChosen: false),
        ];
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $isDay = $field->type === FieldType::Date;
        $amount = TimeReader::amount($node);
        $form = TimeForm::signed([$isDay ? 'from today' : 'from now', 'ago'], $isDay, offers: $editor->offers);
        if ($amount === null || ($isDay && $amount->unit->isShort())) {
            return $context->gap(
                'choose a date',
                $node->at,
                $form,
                'wrong_type',
                Words::say('Give a whole number and a unit, such as 7 days, for {field}.', field: $field->label),
            );
        }
        $read = new self($amount, $context->zone, $context->directory->calendar(null));
        $said = $context->said(self::shape(), $node->raw, $field);
        $context->word($said, WordRole::Value, $node->at, $amount->amount === 0 ? $editor : $form);

        return $read;
    }

    public function value(View $view, Field $for): string
    {
        return $this->at($view->facts->now(), $for);
    }

    /** The date or instant it means at a moment, as the field keeps it. */
    public function at(\DateTimeImmutable $now, Field $for): string
    {
        try {
            $moment = OutOfTime::check($this->amount->from($now, $this->zone, $this->calendar));
        } catch (OutOfTime) {
            // Further than any date that is kept.
            $moment = new \DateTimeImmutable($this->amount->amount < 0 ? '1000-01-01T00:00:00Z' : '9999-12-31T23:59:59Z');
        }

        return $for->type === FieldType::Date ? $moment->setTimezone($this->zone)->format('Y-m-d') : Value::instantText($moment);
    }

    public function paths(): array
    {
        return [];
    }

    public function query(QueryWriter $writer, Field $for): mixed
    {
        return $writer->valueSide($this->at($writer->now(), $for), $for);
    }
}
