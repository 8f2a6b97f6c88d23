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
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** When a week, month or year begins, as the clock of the company has it; a week begins on Monday (ISO 8601). */
final readonly class GivenStart implements Given
{
    /** @var array<string, array{string, string}> value => how it reads, and how PHP finds its first day */
    public const PERIODS = [
        'this_week' => ['this week', 'monday this week'], 'next_week' => ['next week', 'monday next week'],
        'week_after_next' => ['the week after next', 'monday next week +1 week'], 'last_week' => ['last week', 'monday last week'],
        'this_month' => ['this month', 'first day of this month'], 'next_month' => ['next month', 'first day of next month'],
        'month_after_next' => ['the month after next', 'first day of +2 months'],
        'last_month' => ['last month', 'first day of last month'],
        'this_year' => ['this year', 'first day of january this year'], 'next_year' => ['next year', 'first day of january next year'],
        'year_after_next' => ['the year after next', 'first day of january +2 years'],
        'last_year' => ['last year', 'first day of january last year'],
    ];

    /** @param  key-of<self::PERIODS>  $period */
    public function __construct(private string $period, private \DateTimeZone $zone)
    {
    }

    public static function kind(): string
    {
        return 'start';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->says('the start of {of}')->orSaid('the (beginning|first day) of {of}')
            ->slot('of', Labels::of(array_flip(array_map(static fn (array $period): string => $period[0], self::PERIODS))));
    }

    public static function fits(Field $field): bool
    {
        return $field->type->isMoment();
    }

    public static function offers(Context $context, Node $node, Field $field): array
    {
        // Further ones are typed.
        return array_map(
            static fn (string $value): Offer => new Offer('the start of '.self::PERIODS[$value][0], self::json($value), 'Or'),
            ['last_week', 'this_week', 'next_week', 'last_month', 'this_month', 'next_month', 'this_year'],
        );
    }

    public static function read(Context $context, Node $node, Field $field, Editor $editor): ?self
    {
        $of = $node->child('of')->text() ?? '';
        if (! isset(self::PERIODS[$of])) {
            return $context->gap(
                'choose a week, month or year', $node->at, $editor, 'wrong_type',
                Words::say('Choose which week, month or year {field} is compared with.', field: $field->label),
            );
        }
        $context->word($context->said(self::shape(), $node->raw, $field), WordRole::Value, $node->at, $editor);

        return new self($of, $context->zone);
    }

    public function value(View $view, Field $for): string
    {
        return $this->at($view->facts->now(), $for);
    }

    /** The date or instant it means at a moment, as the field keeps it. */
    public function at(\DateTimeImmutable $now, Field $for): string
    {
        $start = $now->setTimezone($this->zone)->modify(self::PERIODS[$this->period][1])->setTime(0, 0);

        return $for->type === FieldType::Date ? $start->format('Y-m-d') : Value::instantText($start);
    }

    public function paths(): array
    {
        return [];
    }

    public function query(QueryWriter $writer, Field $for): mixed
    {
        return $writer->valueSide($this->at($writer->now(), $for), $for);
    }

    /** @return array{kind: string, of: string} */
    private static function json(string $period): array
    {
        return ['kind' => self::kind(), 'of' => $period];
    }
}
